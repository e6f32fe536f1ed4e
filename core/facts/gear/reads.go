package gear

// Reads notes which of the entries that leave something open are looked up in a library. It is
// for one goroutine.
type Reads struct {
	at  map[string]int
	are []bool
}

// Watched is the library, and what will have been looked up in it. The copy is for one goroutine.
func (l *Library) Watched() (*Library, *Reads) {
	reads := &Reads{at: l.openAt, are: make([]bool, len(l.open))}
	return l.watchedBy(reads), reads
}

// Has says whether an entry that leaves something open was looked up.
func (r *Reads) Has(id string) bool {
	at, open := r.at[id]
	return open && r.are[at]
}

// read notes that entries are looked up.
func (l *Library) read(ids ...string) {
	if l.reads == nil {
		return
	}
	for _, id := range ids {
		if at, open := l.reads.at[id]; open {
			l.reads.are[at] = true
		}
	}
}

// readAll notes that any entry may be looked up.
func (l *Library) readAll() {
	if l.reads != nil {
		l.read(l.open...)
	}
}

// watchedBy is the library as what is looked up in it is noted; nil: nowhere.
func (l *Library) watchedBy(reads *Reads) *Library {
	if l.reads == reads {
		return l
	}
	other := *l
	other.reads = reads
	return &other
}

// unwatched is the library to be kept, or changed.
func (l *Library) unwatched() *Library { return l.watchedBy(nil) }
