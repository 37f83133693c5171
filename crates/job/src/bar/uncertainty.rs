//! How sure the bar's figures are: every raw reading drawn once per draw within what it is
//! good to, and the exact formulas worked out again.

use crate::bar::message::{BarMessage, DrawnFigure};
use crate::message::{Label, Message};
use crate::{defaults, tape};
use serde::Serialize;
use utoipa::ToSchema;

use super::further::Further;
use crate::document::{Job, heights, length_of};
use crate::setups::moves::EyeMoves;
use crate::setups::{BasisSource, Resolved};
use derecho_core::bar::FrontView;
use derecho_core::bar::evidence::RiseSource;
use derecho_core::measure::centring::{Centring, Sense};
use derecho_core::measure::draws::{DEFAULT_DRAWS, DEFAULT_SEED, Draws, GENERATOR, middle_95};
use derecho_core::measure::{Angle, Length, TapeEntry};

/// More failed draws than this share, and no interval is given.
const MOST_FAILED: f64 = 0.01;

/// The middle 95 % of a drawn figure.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Interval {
    /// Stable name, such as `change_mm`; its ending is its unit.
    pub name: String,
    /// What it is.
    #[schema(value_type = String)]
    pub meaning: Label,
    /// 2.5 % quantile.
    pub low: f64,
    /// 97.5 % quantile.
    pub high: f64,
    /// Both in words.
    pub says: Message,
}

/// What the draws came to.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Uncertainty {
    /// The generator.
    pub generator: String,
    /// Its seed.
    pub seed: u64,
    /// How many draws.
    pub draws: usize,
    /// Draws for which there is no bar.
    pub failed: usize,
    /// The change of length first; empty where too many draws failed.
    pub intervals: Vec<Interval>,
}

/// What a draw is made from.
#[derive(Clone)]
struct Raw<'a> {
    /// The bar as found, and as the last round left it.
    found: FrontView,
    base: FrontView,
    /// How far the axle went to the left with the eyes' own moves from found to base.
    carried_sideways: Length,
    /// Moves of the eyes that are planned from there.
    moves: EyeMoves,
    plan: PlanLength,
    /// Standard deviation of each of the two bolt heights, or of the finder's v.
    height_deviation: Length,
    finder_deviation: Length,
    centring: Option<(&'a Centring, Sense, [usize; 2], Length)>,
    /// Standard uncertainty of the feature it was read to, with the instrument's share.
    feature: Length,
    /// The same of a better feature: the instrument's share stays.
    better: Length,
    /// Standard deviation of the bar's own length.
    length_deviation: Length,
    /// What rounds since the sheet did to the offset that was read.
    since: Length,
    lift: Option<Length>,
    droop: Length,
    bump: Length,
}

/// How long the bar of the plan is.
#[derive(Clone, Copy, Debug, PartialEq)]
enum PlanLength {
    /// There is nothing to change: the bar as it stands.
    AsItStands,
    /// As long as centres the axle.
    Centring,
    /// A length that is what it is: of a fixed bar that lands near enough, or of the old one.
    Given(Length),
}

const NAMES: [(&str, DrawnFigure); 8] = [
    ("change_mm", DrawnFigure::Change),
    ("length_mm", DrawnFigure::Length),
    ("offset_mm", DrawnFigure::Offset),
    ("angle_deg", DrawnFigure::Angle),
    ("lateral_rate", DrawnFigure::LateralRate),
    ("at_full_droop_mm", DrawnFigure::AtFullDroop),
    ("at_full_bump_mm", DrawnFigure::AtFullBump),
    ("peak_to_peak_mm", DrawnFigure::PeakToPeak),
];

/// Draws 10,000 times from the default seed. None where the bar is not known.
#[must_use]
pub fn uncertainty(job: &Job, resolved: &Resolved) -> Option<Uncertainty> {
    drawn(job, resolved, DEFAULT_DRAWS, DEFAULT_SEED)
}

/// Draws `count` times from a seed, on one thread, so that the numbers are always the same.
#[must_use]
pub fn drawn(job: &Job, resolved: &Resolved, count: usize, seed: u64) -> Option<Uncertainty> {
    Some(Raw::of(job, resolved)?.run(count, seed))
}

/// Half the middle 95 % of the change of length by the same draws, had one further reading been taken: first as it
/// is, then with each of `further`. None where there is no change to draw.
#[must_use]
pub(super) fn narrowed(
    job: &Job,
    resolved: &Resolved,
    further: &[Further],
    (count, seed): (usize, u64),
) -> Option<Vec<Length>> {
    let raw = Raw::of(job, resolved).filter(|raw| raw.plan == PlanLength::Centring)?;
    let half = |raw: &Raw<'_>| {
        let mut draws = Draws::new(seed);
        let mut changes: Vec<f64> = (0..count).filter_map(|_| raw.draw(&mut draws)).map(|f| f[0]).collect();
        let (low, high) = middle_95(&mut changes)?;
        Some(Length::from_mm((high - low) / 2.0))
    };
    std::iter::once(half(&raw)).chain(further.iter().map(|one| half(&raw.clone().with(*one)))).collect()
}

impl<'a> Raw<'a> {
    fn of(job: &'a Job, resolved: &'a Resolved) -> Option<Self> {
        let setups = resolved.setups()?;
        let (results, base) = (&resolved.sheets, &setups.base);
        let basis = setups.wanted.is_some().then_some(&setups.basis);
        let plan = match &setups.wanted {
            None => PlanLength::AsItStands,
            // The very figure, where the length is the one that centres.
            Some(wanted) if wanted.length == wanted.recentring.length_mm && wanted.offset == Length::ZERO => {
                PlanLength::Centring
            }
            Some(wanted) => PlanLength::Given(wanted.length),
        };
        let sheet = basis.and_then(|basis| basis.sheet.as_ref());
        let centring = sheet.and_then(|id| {
            let form = job.sheets.iter().find(|sheet| sheet.id == *id)?;
            let result = results.iter().find(|sheet| sheet.id == *id)?.centring.as_ref()?;
            let counted = |side: &[Option<TapeEntry>]| side.iter().flatten().count();
            let graduation = tape::graduation(form);
            Some((result, form.sense, [counted(&form.left), counted(&form.right)], graduation))
        });
        let good_to =
            length_of(&job.setups.found.bar.heights_good_to).unwrap_or(defaults::BOLT_HEIGHT_GOOD_TO);
        let by_heights = setups.known.rise.source == RiseSource::Heights;
        let (droop, bump) = heights::travel(&job.rig);
        let driven = -heights::driven_offset(&job.rig);
        Some(Self {
            found: setups.found.view,
            base: base.view,
            carried_sideways: base.moves.since(setups.found.moves).sideways(),
            moves: setups.plan.moves.since(base.moves),
            plan,
            since: basis
                .zip(centring.as_ref())
                .map_or(Length::ZERO, |(basis, (centring, ..))| basis.offset_mm - centring.offset_mm),
            // What a reading is good to is taken as two standard deviations.
            height_deviation: if by_heights { good_to / 2.0 } else { Length::ZERO },
            finder_deviation: if by_heights { Length::ZERO } else { setups.known.rise.uncertainty_mm / 2.0 },
            lift: basis
                .filter(|basis| basis.source == BasisSource::Lift)
                .and_then(|_| length_of(&job.rig.lift)),
            feature: centring.map_or(Length::ZERO, |(centring, ..)| centring.feature_uncertainty_mm),
            better: sheet
                .and_then(|id| job.sheets.iter().find(|sheet| sheet.id == *id))
                .map_or(defaults::HUB_FEATURE, tape::better_feature),
            length_deviation: defaults::BAR_LENGTH_GOOD_TO / 2.0,
            centring,
            droop: droop + driven,
            bump: bump - driven,
        })
    }

    /// As it would be drawn with one further reading.
    fn with(mut self, further: Further) -> Self {
        match further {
            Further::RepeatLeft | Further::RepeatRight => {
                if let Some((.., counts, _)) = &mut self.centring {
                    counts[usize::from(further == Further::RepeatRight)] += 1;
                }
            }
            Further::BetterFeature => self.feature = self.feature.min(self.better),
            // The mean of two is good to a root of two less.
            Further::HeightsAgain => self.height_deviation = self.height_deviation / 2.0_f64.sqrt(),
            Further::Finder => {
                let angle = Angle::from_degrees(defaults::FINDER_GOOD_TO_DEGREES / 2.0);
                self.height_deviation = Length::ZERO;
                self.finder_deviation = self.base.reach() * angle.to_radians();
            }
        }
        self
    }
}

impl Raw<'_> {
    fn run(&self, count: usize, seed: u64) -> Uncertainty {
        let mut draws = Draws::new(seed);
        let mut columns: [Vec<f64>; NAMES.len()] = std::array::from_fn(|_| Vec::with_capacity(count));
        let mut failed = 0;
        for _ in 0..count {
            match self.draw(&mut draws) {
                Some(figures) => {
                    for (column, figure) in columns.iter_mut().zip(figures) {
                        column.push(figure);
                    }
                }
                None => failed += 1,
            }
        }
        let trusted = (failed as f64) <= MOST_FAILED * count as f64;
        let intervals = NAMES.iter().zip(&mut columns).enumerate().filter_map(|(index, (name, column))| {
            // Without a correction the first three say nothing, and a given length is no question.
            let silent = match self.plan {
                PlanLength::AsItStands => index < 3,
                PlanLength::Given(_) => index < 2,
                PlanLength::Centring => false,
            };
            if !trusted || silent {
                return None;
            }
            let planned = index > 2 && self.plan != PlanLength::AsItStands;
            let (low, high) = middle_95(column)?;
            Some(Interval {
                name: name.0.to_owned(),
                meaning: BarMessage::DrawnFigure { figure: name.1, planned }.into(),
                low,
                high,
                says: BarMessage::Interval { name: name.0.to_owned(), low, high }.into(),
            })
        });
        Uncertainty {
            generator: GENERATOR.to_owned(),
            seed,
            draws: count,
            failed,
            intervals: intervals.collect(),
        }
    }

    fn draw(&self, draws: &mut Draws) -> Option<[f64; NAMES.len()]> {
        let longer = draws.normal(self.length_deviation);
        let heights = draws.normal(self.height_deviation) - draws.normal(self.height_deviation);
        let higher = heights + draws.normal(self.finder_deviation);
        let drawn = |view: &FrontView| {
            let (length, rise) = (view.length() + longer, view.rise() + higher);
            FrontView::new(length, rise, view.fore_aft(), view.frame_eye_side()).ok()
        };
        let view = drawn(&self.base)?;
        let offset = match (&self.centring, self.lift) {
            (Some((centring, sense, counts, graduation)), _) => {
                let mut side = |readings: usize| {
                    let sum: Length = (0..readings)
                        .map(|_| draws.normal(centring.spread_mm) + draws.graduation(*graduation))
                        .sum();
                    sum / readings as f64
                };
                let sign = if *sense == Sense::Outward { 0.5 } else { -0.5 };
                let half = (side(counts[0]) - side(counts[1])) * sign;
                centring.offset_mm + self.since + half + draws.normal(self.feature)
            }
            (None, Some(lift)) => {
                let found = drawn(&self.found)?;
                let carried = (found.reach() - view.reach()) * view.frame_eye_side().sign();
                found.raised_by(-lift).ok()?.shift_of_lift(lift).ok()? + carried + self.carried_sideways
            }
            (None, None) => Length::ZERO,
        };
        let moves = self.moves;
        let (recentring, centred) =
            view.recentred_moved(offset, moves.rise(), moves.fore_aft(), moves.sideways()).ok()?;
        let planned = match self.plan {
            PlanLength::AsItStands => view,
            PlanLength::Centring => centred,
            PlanLength::Given(length) => centred.with_length(length + longer).ok()?,
        };
        let swing = planned.swing(self.droop, self.bump);
        Some([
            recentring.change_mm.to_mm(),
            recentring.length_mm.to_mm(),
            offset.to_mm(),
            planned.angle().to_degrees(),
            planned.lateral_rate(),
            swing.at_full_droop_mm.to_mm(),
            swing.at_full_bump_mm.to_mm(),
            swing.peak_to_peak_mm.to_mm(),
        ])
    }
}
