package store

import (
	"encoding/json"
	"fmt"
	"strconv"
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
	Version string // of what is stored, and of what was used of the stock since
	Damaged string // what of it does not read; empty: all does
}

// The names of the settings.
const (
	settingProbe   = "probe_address"
	settingSizes   = "shim_sizes"
	settingCounted = "shims_counted_at"
	settingVersion = "shop_version"
)

// Shop reads what the workshop has set up. The stock is what was counted last, less the shims that went into
// engines since; where it does not say when it was counted there is none.
func (s *Store) Shop() (Shop, error) { return shopIn(s.read) }

// shopIn is the workshop as it stands: what was counted last, less what jobs took since. The counting is a
// moment and not a number that is counted down, so that an undone job gives its shims back by itself.
func shopIn(db *gorm.DB) (shop Shop, err error) {
	var settings []settingRow
	if err := db.Find(&settings).Error; err != nil {
		return shop, translate(err)
	}
	set, counted := "", time.Time{}
	for _, r := range settings {
		switch r.Name {
		case settingProbe:
			shop.Probe = r.Value
		case settingSizes:
			shop.Sizes = r.Value
		case settingVersion:
			set = r.Value
		case settingCounted:
			shop.Damaged = r.damaged()
			counted, _ = time.Parse(time.RFC3339Nano, r.Value) // from the beginning, where it does not read
		}
	}
	var used []usedRow
	if err := db.Where("at > ?", counted).Order("at, job_id, n").Find(&used).Error; err != nil {
		return shop, translate(err)
	}
	parts := []string{set}
	for _, u := range used {
		parts = append(parts, strconv.FormatInt(u.SizeNM, 10))
	}
	shop.Version = sumOf(parts...)[:16]
	if shop.Damaged == "" {
		shop.Stock, err = stockLess(db, used)
	}
	return shop, err
}

// damaged says why a setting does not read; empty: it does.
func (r settingRow) damaged() string {
	switch r.Name {
	case settingCounted:
		if _, err := time.Parse(time.RFC3339Nano, r.Value); err != nil {
			return fmt.Sprintf("when the shims were counted does not read: %q", r.Value)
		}
	case settingSizes:
		if r.Value != "" && !json.Valid([]byte(r.Value)) {
			return fmt.Sprintf("the sizes of shims do not read: %q", r.Value)
		}
	}
	return ""
}

// stockLess takes what was used off the stock. More used than counted is none left, not fewer than none.
func stockLess(db *gorm.DB, used []usedRow) ([]adjust.Count, error) {
	var rows []shimRow
	if err := db.Order("size_nm").Find(&rows).Error; err != nil {
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
// empty: whatever there is. ErrChanged where somebody changed it or used of its stock meanwhile, so that no
// shim that is in an engine comes back. The stock counts from now.
func (s *Store) PutShop(shop Shop, replaces string, now time.Time) error {
	rows := make([]shimRow, len(shop.Stock))
	for i, c := range shop.Stock {
		rows[i] = shimRow{int64(c.Shim), c.N}
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		was, err := shopIn(tx)
		if err != nil {
			return err
		}
		if replaces != "" && was.Version != replaces {
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
