//! Every figure that bears on a cause, as it differs from what it should be, and what its error has in common with the
//! others': one reference point's, one vehicle's, one prediction's.

use derecho_core::measure::suspicion::Figures;
use derecho_core::measure::{AngleEntry, Length, TapeEntry};

use crate::document::heights;
use crate::document::{Job, Method, Sheet, SheetKind};
use crate::prove::prediction;
use crate::setups::Resolved;
use crate::tape::{SheetResult, same_feature, stance};

/// A figure that was measured.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum FigureKind {
    /// Where the axle is by a sheet, + left, in mm, less how far it was predicted to have moved.
    Offset {
        /// Its place among the sheets.
        sheet: usize,
        /// The round it was measured after.
        round: usize,
        /// From what to what.
        method: Method,
    },
    /// The frame's mean height above the hubs, by a sheet, in mm.
    Stance {
        /// Its place among the sheets.
        sheet: usize,
    },
    /// How much higher the frame is above the right hub than above the left one, in mm.
    Lean {
        /// Its place among the sheets.
        sheet: usize,
    },
    /// Wheelbase on the left less that on the right, in mm.
    Square {
        /// Its place among the sheets.
        sheet: usize,
    },
    /// The bar's angle by a finder less the one it should have, without their signs, in degrees.
    BarAngle,
    /// The left sway link's length less the right one's, in mm.
    Links,
    /// The left corner's weight less the right one's, in hundredths of both.
    CornerWeights,
}

/// What nobody predicts: where the axle was as it came in. Standard deviation, mm.
const AS_FOUND: f64 = 25.0;
/// How high a frame stands over its hubs, mm.
const STANDS: f64 = 200.0;
/// What a height over a hub is good to, mm.
const HEIGHT_GOOD_TO: f64 = 2.0;
/// How unlike the corners of a sound vehicle stand, mm; its wheelbases, mm; its corner weights, hundredths.
const CORNERS: f64 = 5.0;
const WHEELBASES: f64 = 2.5;
const WEIGHTS: f64 = 2.5;
/// How unlike two links are that were set alike, mm.
const LINKS: f64 = 1.8;
/// What a finder on the bar is good to, degrees.
const FINDER: f64 = 0.25;

/// A figure with where its error comes from.
struct Row {
    kind: FigureKind,
    /// What was measured less what should have been.
    difference: f64,
    /// Its own standard deviation.
    own: f64,
    /// The deviation of what others of its kind share with it.
    shared: f64,
    /// That of its reference point.
    reference: f64,
    /// Its sheet's reference point, by the place of the first sheet that has it.
    reference_at: usize,
}

/// What was gathered.
pub(super) struct Gathered {
    /// Each figure.
    pub(super) kinds: Vec<FigureKind>,
    /// By how much each differs from what it should be.
    pub(super) differences: Vec<f64>,
    /// The figures with what their errors have in common.
    pub(super) figures: Figures,
}

/// Gathers them; None without any. `newest_alone` leaves out what was measured before the last adjustment.
pub(super) fn gather(job: &Job, resolved: &Resolved, newest_alone: bool) -> Option<Gathered> {
    let rounds = job.setups.axle_rounds().len();
    let mut rows: Vec<Row> = job
        .sheets
        .iter()
        .zip(&resolved.sheets)
        .enumerate()
        .filter(|(_, (sheet, result))| {
            result.drives() && (!newest_alone || job.setups.axle_rounds_before(&sheet.after) == rounds)
        })
        .flat_map(|(index, (sheet, result))| of_sheet(job, resolved, (index, sheet), result))
        .collect();
    rows.extend(bar_angle(job, resolved));
    rows.extend(links(job));
    rows.extend(corner_weights(job));
    let steps = predicted_steps(job, resolved);
    let covariance: Vec<f64> =
        rows.iter().flat_map(|one| rows.iter().map(|other| in_common(one, other, &steps))).collect();
    let differences: Vec<f64> = rows.iter().map(|row| row.difference).collect();
    let figures = Figures::new(&differences, &covariance).filter(|figures| !figures.is_empty())?;
    Some(Gathered { kinds: rows.iter().map(|row| row.kind).collect(), differences, figures })
}

/// What the errors of two figures have in common: the covariance. All that is shared between two sheets is here.
fn in_common(one: &Row, other: &Row, steps: &[f64]) -> f64 {
    if one.kind == other.kind {
        let predicted = match one.kind {
            FigureKind::Offset { round, .. } => steps.iter().take(round).sum(),
            _ => 0.0,
        };
        return one.own.powi(2) + one.shared.powi(2) + one.reference.powi(2) + predicted;
    }
    match (one.kind, other.kind) {
        (FigureKind::Offset { round, .. }, FigureKind::Offset { round: later, .. }) => {
            let point =
                if one.reference_at == other.reference_at { one.reference * other.reference } else { 0.0 };
            one.shared * other.shared + point + steps.iter().take(round.min(later)).sum::<f64>()
        }
        (FigureKind::Stance { .. }, FigureKind::Stance { .. })
        | (FigureKind::Lean { .. }, FigureKind::Lean { .. })
        | (FigureKind::Square { .. }, FigureKind::Square { .. }) => one.shared * other.shared,
        _ => 0.0,
    }
}

/// The variance of each step's predicted movement, mm², one an adjustment.
fn predicted_steps(job: &Job, resolved: &Resolved) -> Vec<f64> {
    let made = job.setups.axle_rounds();
    let Some(setups) = resolved.setups() else { return vec![0.0; made.len()] };
    setups
        .rounds
        .windows(2)
        .enumerate()
        .map(|(step, pair)| {
            let good_to = prediction::uncertainty(
                job,
                setups,
                (&pair[0], &pair[1]),
                &made[step..=step.min(made.len() - 1)],
            );
            good_to.to_mm().powi(2)
        })
        .collect()
}

fn of_sheet(
    job: &Job,
    resolved: &Resolved,
    (index, sheet): (usize, &Sheet),
    result: &SheetResult,
) -> Vec<Row> {
    let plain = |kind, difference, own, shared| Row {
        kind,
        difference,
        own,
        shared,
        reference: 0.0,
        reference_at: index,
    };
    let mut rows = Vec::new();
    if sheet.kind == SheetKind::StickOut {
        return rows;
    }
    rows.extend(offset(job, resolved, (index, sheet), result));
    if let Some(square) = &result.squareness {
        let wheelbase = (square.left_mean_mm - square.right_mean_mm).to_mm();
        let between = sheet.between_points.as_ref().map_or(0.0, |between| between.length().to_mm());
        let own = square.uncertainty_deg.to_radians() * between / 2.0;
        rows.push(plain(FigureKind::Square { sheet: index }, wheelbase, own, WHEELBASES));
    }
    if let Some(height) = stance(sheet) {
        let differs = height.to_mm() - first_stance(job).unwrap_or(height).to_mm();
        rows.push(plain(FigureKind::Stance { sheet: index }, differs, HEIGHT_GOOD_TO, STANDS));
    }
    if let Some((left, right)) = sheet.frame_above_hub_left.as_ref().zip(sheet.frame_above_hub_right.as_ref())
    {
        let leans = (right.length() - left.length()).to_mm();
        rows.push(plain(FigureKind::Lean { sheet: index }, leans, HEIGHT_GOOD_TO, CORNERS));
    }
    rows
}

fn first_stance(job: &Job) -> Option<Length> {
    job.sheets.iter().find_map(stance)
}

fn offset(
    job: &Job,
    resolved: &Resolved,
    (index, sheet): (usize, &Sheet),
    result: &SheetResult,
) -> Option<Row> {
    if sheet.kind != SheetKind::Centring {
        return None;
    }
    let centring = result.centring.as_ref()?;
    let round = job.setups.axle_rounds_before(&sheet.after);
    // Without a bar nothing says how far it should have moved: only what was measured since can be compared.
    let predicted = match resolved.setups() {
        Some(setups) => setups.rounds.get(round)?.offset - setups.rounds.first()?.offset,
        None if round == job.setups.axle_rounds().len() => Length::ZERO,
        None => return None,
    };
    let reference_at = job
        .sheets
        .iter()
        .position(|other| other.kind == sheet.kind && same_feature(other, sheet))
        .unwrap_or(index);
    Some(Row {
        kind: FigureKind::Offset { sheet: index, round, method: sheet.method },
        difference: (centring.offset_mm - predicted).to_mm(),
        own: centring.repeat_uncertainty_mm.to_mm(),
        shared: AS_FOUND,
        reference: centring.feature_uncertainty_mm.to_mm(),
        reference_at,
    })
}

fn alone(kind: FigureKind, difference: f64, own: f64) -> Row {
    Row { kind, difference, own, shared: 0.0, reference: 0.0, reference_at: 0 }
}

fn bar_angle(job: &Job, resolved: &Resolved) -> Option<Row> {
    let read = job.proof.looked_at.bar_angle.as_ref().map(AngleEntry::angle)?;
    let setups = resolved.measured_setups()?;
    let view = &setups.fitted.view;
    let slope = (setups.known.rise.uncertainty_mm.to_mm() / 2.0 / view.length().to_mm()).to_degrees();
    let differs = read.abs().to_degrees() - view.angle().abs().to_degrees();
    Some(alone(FigureKind::BarAngle, differs, FINDER.hypot(slope)))
}

fn links(job: &Job) -> Option<Row> {
    let looked = &job.proof.looked_at;
    let [left, right] =
        [&looked.left_link, &looked.right_link].map(|link| link.as_ref().map(TapeEntry::length));
    Some(alone(FigureKind::Links, (left? - right?).to_mm(), LINKS))
}

fn corner_weights(job: &Job) -> Option<Row> {
    let [left, right] = [&job.vehicle.left_corner, &job.vehicle.right_corner]
        .map(|corner| corner.as_ref().map(|corner| corner.mass().to_kg()));
    let (left, right) = (left?, right?);
    let both = left + right;
    (both > 0.0).then(|| alone(FigureKind::CornerWeights, (left - right) / both * 100.0, WEIGHTS))
}

/// How far the axle hangs below where it is driven; where nobody said, as far as is usual.
pub(super) fn droop(job: &Job) -> Length {
    let from_ride = job.rig.droop.as_ref().map(TapeEntry::length);
    from_ride.map_or(Length::from_mm(100.0), |droop| droop - heights::driven_offset(&job.rig))
}
