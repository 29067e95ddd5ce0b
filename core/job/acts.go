package job

// FilesOf are the hashes of the pictures and recordings that an act names.
func FilesOf(a Act) []string {
	switch a := a.(type) {
	case FindingNoted:
		return named(a.Photo)
	case SoundNoted:
		return named(a.File)
	}
	return nil
}

// named is a hash as a list; none is no file.
func named(hash string) []string {
	if hash == "" {
		return nil
	}
	return []string{hash}
}

// Acts lists one act of each kind, in the order of a job. It is also what holds at compile time that each is
// an Act.
func Acts() []Act {
	return []Act{
		WayChosen{}, RoundChosen{}, TemperatureNoted{}, Prepared{}, JudgedCold{}, JudgedHot{}, EngineStopped{},
		Turned{}, Located{}, Doubted{}, Picked{}, PlayFelt{}, ReadingTaken{}, DialRead{},
		Withdrawn{}, Sized{}, ShimsChosen{}, Kept{}, Freed{}, Adjusted{}, Nipped{}, Locked{}, SetTold{}, LeftAsIs{},
		BarredOver{}, Undone{}, Signed{},
		WentHot{}, TakenIn{}, SoundNoted{}, TaskMarked{}, Stripped{}, NutFelt{}, Waiting{}, HandedOver{},
		ToolMoved{}, TurningBy{}, FindingNoted{}, Amended{}, Countersigned{},
	}
}
