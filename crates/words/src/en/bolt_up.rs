//! Stage Bolt-up.

use derecho_core::measure::phrase::Words;
use derecho_core::measure::physical::NM_PER_LB_FT;
use derecho_core::measure::{Moment, Unit};

/// A torque in both units, the person's own first.
pub(super) fn both(w: Words, moment: Moment) -> String {
    let pound_feet = format!("{:.0} lb-ft", moment.to_nm() / NM_PER_LB_FT);
    let newton_metres = format!("{:.0} N·m", moment.to_nm());
    match w.unit() {
        Unit::Inches => format!("{pound_feet} ({newton_metres})"),
        Unit::Millimetres => format!("{newton_metres} ({pound_feet})"),
    }
}
