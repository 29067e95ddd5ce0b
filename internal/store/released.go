package store

import "time"

// This file keeps tables as an earlier version made them, for its migration step. Nothing here is changed.

type gaugeSetRowOne struct {
	ID        string    `gorm:"primaryKey;size:64"`
	Name      string    `gorm:"not null;size:400"`
	Leaves    string    `gorm:"not null"`
	CreatedAt time.Time `gorm:"not null"`
}

type jobRowOne struct {
	ID         string     `gorm:"primaryKey;size:64"`
	VehicleID  string     `gorm:"not null;size:64;index"`
	Vehicle    vehicleRow `gorm:"foreignKey:VehicleID;constraint:OnDelete:RESTRICT"`
	Sheet      string     `gorm:"not null"`
	Card       int        `gorm:"not null"`
	GaugeName  string     `gorm:"not null;size:400"`
	Leaves     string     `gorm:"not null"`
	Mechanic   string     `gorm:"not null;size:400"`
	Reason     string     `gorm:"not null;size:400"`
	OdometerKM int        `gorm:"not null"`
	CreatedAt  time.Time  `gorm:"not null;index"`
}

func (gaugeSetRowOne) TableName() string { return gaugeSetRow{}.TableName() }
func (jobRowOne) TableName() string      { return jobRow{}.TableName() }
