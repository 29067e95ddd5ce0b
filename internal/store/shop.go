package store

import (
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/core/adjust"
	"metronix/core/measure"
)

// Shop is what the workshop has set up.
type Shop struct {
	Probe   string
	Sizes   string // JSON of the sizes that can be bought; empty: not said
	Stock   []adjust.Count
	Version string // of what is stored
}

// The names of the settings.
const (
	settingProbe   = "probe_address"
	settingSizes   = "shim_sizes"
	settingCounted = "shims_counted_at"
	settingVersion = "shop_version"
)

// Shop reads what the workshop has set up. The stock is what was counted last, less the shims that went into
// engines since.
func (s *Store) Shop() (shop Shop, err error) {
	var settings []settingRow
	if err := s.read.Find(&settings).Error; err != nil {
		return shop, translate(err)
	}
	counted := time.Time{}
	for _, r := range settings {
		switch r.Name {
		case settingProbe:
			shop.Probe = r.Value
		case settingSizes:
			shop.Sizes = r.Value
		case settingVersion:
			shop.Version = r.Value
		case settingCounted:
			if counted, err = time.Parse(time.RFC3339Nano, r.Value); err != nil {
				return shop, err
			}
		}
	}
	shop.Stock, err = s.stock(counted)
	return shop, err
}

func (s *Store) stock(counted time.Time) ([]adjust.Count, error) {
	var rows []shimRow
	if err := s.read.Order("size_nm").Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	var used []usedRow
	if err := s.read.Where("at > ?", counted).Find(&used).Error; err != nil {
		return nil, translate(err)
	}
	gone := map[int64]int{}
	for _, u := range used {
		gone[u.SizeNM]++
	}
	stock := make([]adjust.Count, len(rows))
	for i, r := range rows {
		stock[i] = adjust.Count{Shim: measure.Length(r.SizeNM), N: max(0, r.N-gone[r.SizeNM])}
	}
	return stock, nil
}

// PutShop stores the whole setting of the workshop at once, in place of the one whose version is named;
// empty: whatever there is. ErrChanged where somebody changed it meanwhile. The stock counts from now.
func (s *Store) PutShop(shop Shop, replaces string, now time.Time) error {
	rows := make([]shimRow, len(shop.Stock))
	for i, c := range shop.Stock {
		rows[i] = shimRow{int64(c.Shim), c.N}
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		var was settingRow
		if err := tx.Where("name = ?", settingVersion).Limit(1).Find(&was).Error; err != nil {
			return err
		}
		if replaces != "" && was.Value != replaces {
			return ErrChanged
		}
		for _, r := range []settingRow{{settingProbe, shop.Probe}, {settingSizes, shop.Sizes},
			{settingCounted, now.UTC().Format(time.RFC3339Nano)}, {settingVersion, shop.Version}} {
			if err := tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&r).Error; err != nil {
				return err
			}
		}
		if err := tx.Where("1 = 1").Delete(&shimRow{}).Error; err != nil {
			return err
		}
		if len(rows) == 0 {
			return nil
		}
		return tx.Create(&rows).Error
	}))
}
