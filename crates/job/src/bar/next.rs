//! What to read next: which single further reading narrows the answer most, and to what. Not here: the draws
//! (`uncertainty`), the sentences (`words`).

use derecho_core::bar::evidence::RiseSource;
use derecho_core::measure::Length;
use derecho_core::measure::centring::{Answer, Centring};
use derecho_core::measure::draws::DEFAULT_SEED;
use derecho_core::measure::length::in_quadrature;
use serde::Serialize;
use utoipa::ToSchema;

use super::further::Further;
use super::uncertainty::narrowed;
use crate::bar::message::BarMessage;
use crate::defaults;
use crate::document::{Job, Sheet};
use crate::message::Message;
use crate::setups::Resolved;
use crate::tape::{self, SheetResult};

/// What one further reading is worth.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NextOption {
    /// Which.
    pub reading: Further,
    /// What the answer would be good to, ±, with 95 in 100.
    pub to_mm: Length,
    /// In words.
    pub says: Message,
}

/// What to read next.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NextReading {
    /// What the answer is good to now, ±, with 95 in 100: the change of length where there is one, else the offset.
    pub now_mm: Length,
    /// Whether the answer cannot be told, or is worse than the tolerance: then it is said without being asked for.
    pub recommended: bool,
    /// Each reading that helps, the best first.
    pub options: Vec<NextOption>,
    /// The best in one sentence.
    pub says: Message,
}

/// Draws of one candidate: enough to tell them apart by a hundredth of a millimetre, as all use the same ones.
pub const NEXT_DRAWS: usize = 2_000;
/// What narrows by less than this is not worth a reading.
const WORTH: f64 = 0.02;

/// The sheet the answer rests on: the one that is corrected, else the newest that is current.
fn basis<'a>(job: &'a Job, resolved: &'a Resolved) -> Option<(&'a Sheet, &'a SheetResult, &'a Centring)> {
    let found = |id: &str| {
        let place = job.sheets.iter().position(|sheet| sheet.id == id)?;
        let result = &resolved.sheets[place];
        Some((&job.sheets[place], result, result.centring.as_ref()?))
    };
    let corrected = resolved.setups().and_then(|setups| setups.basis.sheet.as_deref());
    corrected.and_then(found).or_else(|| {
        let current =
            resolved.sheets.iter().rev().filter(|result| result.current && result.centring.is_some());
        current
            .filter(|result| result.kind == crate::document::SheetKind::Centring)
            .find_map(|r| found(&r.id))
    })
}

/// U of the offset with so many repeats on either side and such a feature; the scatter of a reading stays.
fn offset_good_to(sheet: &Sheet, centring: &Centring, counts: [usize; 2], feature: Length) -> Length {
    let graduation = tape::graduation(sheet) / 12.0_f64.sqrt();
    let side = |count: usize| in_quadrature(&[centring.spread_mm / (count as f64).sqrt(), graduation]);
    in_quadrature(&[in_quadrature(&[side(counts[0]), side(counts[1])]) / 2.0, feature]) * 2.0
}

/// What to read next; None where there is no sheet to narrow, or nothing that would.
#[must_use]
pub fn next_reading(job: &Job, resolved: &Resolved, draws: usize) -> Option<NextReading> {
    let (sheet, _, centring) = basis(job, resolved)?;
    let mut candidates = vec![Further::RepeatLeft, Further::RepeatRight];
    if tape::feature_uncertainty(sheet) > defaults::HUB_FEATURE {
        candidates.push(Further::BetterFeature);
    }
    let by_heights = resolved.setups().is_some_and(|setups| setups.known.rise.source == RiseSource::Heights);
    if by_heights {
        candidates.extend([Further::HeightsAgain, Further::Finder]);
    }
    let drawn = narrowed(job, resolved, &candidates, (draws, DEFAULT_SEED));
    let (now, narrowed) = match drawn.as_deref() {
        Some([now, rest @ ..]) => (*now, rest.to_vec()),
        _ => {
            let counts = [tape::lengths(&sheet.left).len(), tape::lengths(&sheet.right).len()];
            let feature = centring.feature_uncertainty_mm;
            let with = |further: &Further| match further {
                Further::RepeatLeft => offset_good_to(sheet, centring, [counts[0] + 1, counts[1]], feature),
                Further::RepeatRight => offset_good_to(sheet, centring, [counts[0], counts[1] + 1], feature),
                Further::BetterFeature => {
                    offset_good_to(sheet, centring, counts, feature.min(tape::better_feature(sheet)))
                }
                // They tell the length, not where the axle is.
                Further::HeightsAgain | Further::Finder => centring.uncertainty_mm,
            };
            (centring.uncertainty_mm, candidates.iter().map(with).collect())
        }
    };
    let mut options: Vec<NextOption> = candidates
        .into_iter()
        .zip(narrowed)
        .filter(|(_, to)| *to < now * (1.0 - WORTH))
        .map(|(reading, to_mm)| NextOption {
            reading,
            to_mm,
            says: BarMessage::Further { reading, now, to: to_mm }.into(),
        })
        .collect();
    options.sort_by(|a, b| a.to_mm.to_mm().total_cmp(&b.to_mm.to_mm()));
    let best = options.first()?;
    Some(NextReading {
        now_mm: now,
        recommended: centring.answer == Answer::CannotTell || !centring.method_can_prove,
        says: BarMessage::ReadNext { reading: best.reading, now, to: best.to_mm }.into(),
        options,
    })
}
