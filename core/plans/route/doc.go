// Package route chooses which firmware goes on which device of a fleet, so
// that the quads, goggles and controllers that shall work together do.
//
// # The problem
//
// Every air unit, every pair of goggles and every controller ends on one
// release that can be reached from the one it carries. A want (this quad with
// these goggles, as a must or a wish) is met when some pairing statement holds:
// the unit's and the goggles' releases lie in its ranges, the goggles' release
// has its mode, and the controller's release lies in its range, unless a
// separate receiver takes the sticks. Among all choices the best is, in this
// order: most musts met, most wishes met, most valued features kept on the
// links wanted, fewest one-way doors, fewest devices touched, fewest updates.
// Ties go to fewer ill-advised releases and then to newer ones.
//
// # The method
//
// Only a handful of devices are shared by many quads: goggles and controllers.
// Once their releases are chosen, every quad is on its own and its unit's best
// release is found by looking at each. Two releases of a device that lie in the
// same ranges are the same to every pairing, so a device has as many choices as
// its ranges have breakpoints, not as many as it has releases; and a choice
// that holds no statement another one lacks and costs no less is dropped.
// Quads alike in unit, release and wants are one group with a count.
//
// The choices of the shared devices are searched depth first. The bound at a
// node gives every device not chosen yet all its choices at once, which no real
// choice can beat; a branch that cannot beat the best found is left. Scores are
// vectors compared from the first component on and added by component; that
// order is kept by addition, so the best of a sum is the sum of each quad's
// best. The search is exact.
//
// # Bounds
//
// With q groups, at most r choices of a unit, w wants of a quad and s shared
// devices of at most c choices, a node costs O(q·r·w) and there are at most c^s
// leaves; pairs of goggles owned are few and c is rarely above three. The search stops
// after Budget nodes and says so (Plan.Bounded); no fleet in the tests or the
// benchmarks comes near it.
package route
