package store

import (
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/core/adjust"
	"metronix/core/measure"
)

// ShimStock lists the shop's shims by size.
func (s *Store) ShimStock() ([]adjust.Count, error) {
	var rows []shimRow
	if err := s.read.Order("size_nm").Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	stock := make([]adjust.Count, len(rows))
	for i, r := range rows {
		stock[i] = adjust.Count{Shim: measure.Length(r.SizeNM), N: r.N}
	}
	return stock, nil
}

// PutShimStock stores the whole stock in place of what was there.
func (s *Store) PutShimStock(stock []adjust.Count) error {
	rows := make([]shimRow, len(stock))
	for i, c := range stock {
		rows[i] = shimRow{int64(c.Shim), c.N}
	}
	return translate(s.write.Transaction(func(tx *gorm.DB) error {
		if err := tx.Where("1 = 1").Delete(&shimRow{}).Error; err != nil {
			return err
		}
		if len(rows) == 0 {
			return nil
		}
		return tx.Create(&rows).Error
	}))
}

// Setting reads a setting of the workshop; empty where it is not set.
func (s *Store) Setting(name string) (string, error) {
	var rows []settingRow
	if err := s.read.Where("name = ?", name).Find(&rows).Error; err != nil || len(rows) == 0 {
		return "", translate(err)
	}
	return rows[0].Value, nil
}

// PutSetting stores a setting of the workshop.
func (s *Store) PutSetting(name, value string) error {
	return translate(s.write.Clauses(clause.OnConflict{UpdateAll: true}).Create(&settingRow{name, value}).Error)
}
