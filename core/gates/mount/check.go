package mount

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
)

// The findings of this gate.
const (
	CodeUnknown  verdict.Code = "mount.unknown"
	CodeHoles    verdict.Code = "mount.holes"
	CodePlate    verdict.Code = "mount.plate"
	CodeScrew    verdict.Code = "mount.screw"
	CodeTooLong  verdict.Code = "mount.screw-too-long"
	CodeShort    verdict.Code = "mount.screw-too-short"
	CodeOrder    verdict.Code = "mount.screw-to-order"
	CodeShallow  verdict.Code = "mount.thread-too-shallow"
	CodeDrilled  verdict.Code = "mount.drilled"
	CodeEdge     verdict.Code = "mount.drilled-at-the-edge"
	CodeHeight   verdict.Code = "mount.height"
	CodeTilt     verdict.Code = "mount.camera-tilt"
	CodeCage     verdict.Code = "mount.cage"
	CodePerSide  verdict.Code = "mount.camera-screws"
	CodeLens     verdict.Code = "mount.lens"
	CodeCable    verdict.Code = "mount.camera-cable"
	CodeAccess   verdict.Code = "mount.access"
	CodeLead     verdict.Code = "mount.antenna-lead"
	CodeTurned   verdict.Code = "mount.board-turned"
	CodeCamera   verdict.Code = "mount.camera"
	CodeHead     verdict.Code = "mount.screw-head"
	CodeStack    verdict.Code = "mount.stack"
	CodeHeld     verdict.Code = "mount.held"
	CodeTwice    verdict.Code = "mount.held-twice"
	CodeOnce     verdict.Code = "mount.held-once"
	CodeSoftens  verdict.Code = "mount.softens"
	CodeStopGap  verdict.Code = "mount.stop-gap"
	CodeRoom     verdict.Code = "mount.room"
	CodeBlocked  verdict.Code = "mount.blocked"
	CodeStruck   verdict.Code = "mount.struck"
	CodeBend     verdict.Code = "mount.antenna-bend"
	CodeOffHoles verdict.Code = "mount.off-its-holes"
	CodeLeftOff  verdict.Code = "mount.left-off"
	CodeHot      verdict.Code = "mount.hot"
	CodePlugRoom verdict.Code = "mount.antenna-plug"
	CodeShot     verdict.Code = "mount.in-the-shot"
	CodeCut      verdict.Code = "mount.standoffs-cut"
	CodeThrough  verdict.Code = "mount.antenna-lead-between"
	CodeSwept    verdict.Code = "mount.antenna-lead-swept"
	CodeBracket  verdict.Code = "mount.bracket"
	CodeOpen     verdict.Code = "mount.open-there"
	CodeFits     verdict.Code = "mount.fits"
)

// dangers of the findings: a screw too long drives into the circuit board, one too
// short lets go in the air, a turned board flips the quad over.
var dangers = map[verdict.Code]verdict.Danger{
	CodeUnknown: verdict.Destroys,
	CodeTooLong: verdict.Destroys,
	CodeScrew:   verdict.Destroys,
	CodeShort:   verdict.Falls,
	CodeHead:    verdict.Falls,
	CodeShallow: verdict.Falls,
	CodeTurned:  verdict.Falls,
	CodeDrilled: verdict.Inconvenient,
	CodeEdge:    verdict.Falls,
	CodeHeld:    verdict.Fails,
	CodeTwice:   verdict.Inconvenient,
	CodeOnce:    verdict.Falls,
	CodeSoftens: verdict.Falls,
	CodeStopGap: verdict.Inconvenient,
	CodeRoom:    verdict.Fails,
	CodeBlocked: verdict.Inconvenient,
	CodeStruck:  verdict.Falls,
	CodeBend:    verdict.Fails,
	CodeLeftOff: verdict.Falls,
	CodeHot:     verdict.Fails,
	CodeShot:    verdict.Inconvenient,
	CodeCut:     verdict.Falls,
	CodeBracket: verdict.Falls,
	CodeOpen:    verdict.Fails,
	CodeThrough: verdict.Inconvenient,
	CodeSwept:   verdict.Falls,
}

// fits says where the unit sits and what holds it.
func (s *seat) fits() verdict.Finding {
	f := verdict.Finding{Code: CodeFits, Level: verdict.Fits, Source: verdict.Practice}
	if !s.Fit.OwnHoles() {
		f.Says = fmt.Sprintf("%s sits in the %s of %s, held by %s.", s.airUnit.Label(), s.bay.Label(), s.frame.Label(),
			s.held.Words())
		return f
	}
	holes, _ := s.holds()
	f.Says = fmt.Sprintf("%s sits on %s holes in the %s of %s, held by %s.", s.airUnit.Label(), holes, s.bay.Label(),
		s.frame.Label(), s.screws(holes))
	return f
}

// Check judges how the air unit of one fit is mounted.
func Check(c fleet.Case) []verdict.Finding {
	s := newSeat(c)
	findings := make([]verdict.Finding, 0, 4)
	if len(s.missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeUnknown, c.Quad.Label(), s.missing...))
	} else {
		if s.Fit.OwnHoles() {
			findings = append(findings, s.checkHoles()...)
		}
		findings = append(findings, s.checkHeight()...)
		findings = append(findings, s.checkCamera()...)
		if s.camera.Camera != nil {
			findings = append(findings, s.checkTilt()...)
		}
		if !s.stands() {
			findings = append(findings, s.checkLeads()...)
		}
		findings = append(findings, s.checkHeat()...)
		findings = append(findings, s.checkAccess()...)
		findings = append(findings, s.checkStack()...)
		findings = append(findings, s.checkStackUnder()...)
	}
	findings = append(findings, s.checkLeftOff()...)
	findings = append(findings, s.checkCut()...)
	findings = append(findings, s.checkHoldings()...)
	findings = append(findings, s.checkRoom()...)
	findings = append(findings, s.checkTurned()...)
	if len(findings) == 0 {
		findings = append(findings, s.fits())
	}
	return verdict.Complete(verdict.Mount, c.Quad.Label(), findings, dangers)
}
