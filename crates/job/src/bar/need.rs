//! How steep is steep: the one judgement whether a bracket is urged, offered or not needed. Stage
//! Bar and stage Bracket say it in the same sentence.

use derecho_core::bar::FrontView;
use derecho_core::measure::{Angle, AngleEntry, Length, Side};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::defaults;
use crate::document::bracketing::Target;
use crate::document::hardpoints::PointForm;
use crate::document::{Complaint, Job, heights, length_of};
use crate::message::Message;

/// Whether a bracket is wanted.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Need {
    /// The bar is level or as good as.
    NotNeeded,
    /// One would help; a length alone will do.
    Offered,
    /// A length alone leaves too much.
    Recommended,
}

/// Why a bracket is urged.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NeedReason {
    /// The bar is steeper than the threshold.
    Steep,
    /// The axle swings further over the travel than is comfortable.
    Swings,
    /// Side-stepping is complained of.
    Complaint,
    /// Bar and drag link lean apart, and were to be parallel.
    BesideLink,
    /// The bar is off the angle the maker had, and was to have it.
    OffStock,
}

/// Whether a bracket is wanted, and why.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NeedFacts {
    /// Whether.
    pub need: Need,
    /// Why it is urged; empty where it is not.
    pub reasons: Vec<NeedReason>,
    /// The bar's angle at the driven height with its length alone set.
    pub angle_deg: Angle,
    /// The swing over the travel that remains from there.
    pub swing_mm: Length,
    /// From this angle on a bracket is urged.
    pub steep_from_deg: Angle,
    /// More swing than this is not comfortable.
    pub swing_limit_mm: Length,
    /// How far bar and drag link lean apart, without a sign, where they are to be parallel and the link was measured.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link_apart_deg: Option<Angle>,
    /// How far the bar is off the angle the maker had, without a sign, where it is to have that.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub off_stock_deg: Option<Angle>,
}

/// The same with its sentence: what Bar and Bracket both say.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BracketNeed {
    /// The facts.
    #[serde(flatten)]
    pub facts: NeedFacts,
    /// In words.
    pub says: Message,
}

/// Judges the bar as a length alone would leave it; travel as distances from the driven height.
#[must_use]
pub fn judge(job: &Job, view: &FrontView, droop: Length, bump: Length) -> NeedFacts {
    let form = &job.bracket;
    let steep_from =
        form.steep_from.as_ref().map_or(Angle::from_degrees(defaults::STEEP_FROM_DEGREES), AngleEntry::angle);
    let swing_limit = length_of(&form.swing_limit).unwrap_or(defaults::SWING_LIMIT);
    let (angle, swing) = (view.angle().abs(), view.swing(droop, bump).peak_to_peak_mm);
    let link_apart = beside_link(job, view);
    let stock = form.stock_angle.as_ref().filter(|_| form.target == Target::AsTheMakerHadIt);
    let off_stock = stock.map(|stock| (view.angle() - stock.angle()).abs());
    let apart = link_apart.or(off_stock);
    let (told, bad) = defaults::LINK_APART_DEGREES;
    // Beside a drag link the bar is not to be level but as steep as the link is, or as the maker had it.
    let tilted =
        apart.map_or(angle.to_degrees() >= defaults::LEVEL_ENOUGH_DEGREES, |apart| apart.to_degrees() > told);
    let reasons: Vec<NeedReason> = [
        (apart.is_none() && angle >= steep_from, NeedReason::Steep),
        (link_apart.is_some_and(|apart| apart.to_degrees() > bad), NeedReason::BesideLink),
        (off_stock.is_some_and(|off| off.to_degrees() > bad), NeedReason::OffStock),
        (apart.is_none() && swing > swing_limit && tilted, NeedReason::Swings),
        (tilted && side_stepping(job), NeedReason::Complaint),
    ]
    .into_iter()
    .filter_map(|(holds, reason)| holds.then_some(reason))
    .collect();
    let need = match (reasons.is_empty(), tilted) {
        (false, _) => Need::Recommended,
        (true, true) => Need::Offered,
        (true, false) => Need::NotNeeded,
    };
    NeedFacts {
        need,
        reasons,
        angle_deg: view.angle(),
        swing_mm: swing,
        steep_from_deg: steep_from,
        swing_limit_mm: swing_limit,
        link_apart_deg: link_apart,
        off_stock_deg: off_stock,
    }
}

/// How far the bar leans from the drag link at the driven height, both as seen from the front, + to the left and up:
/// |atan(v / y) − atan(v_link / y_link)|. None where they are not to be parallel, or the link was not measured.
fn beside_link(job: &Job, view: &FrontView) -> Option<Angle> {
    let link =
        job.hardpoints.steering.as_ref().filter(|_| job.bracket.target == Target::ParallelToDragLink)?;
    let out = |side: Side, point: &PointForm| Some(point.out_from_centre(&job.rig)? * side.sign());
    let up = heights::of_body(job, link.pitman.height.as_ref()?, heights::read_at(job))?;
    let down = heights::of_axle(job, link.knuckle.height.as_ref()?);
    let (pitman, knuckle) =
        ((out(link.pitman_side, &link.pitman)?, up), (out(link.knuckle_side, &link.knuckle)?, down));
    // The body's end comes up with the body; the axle's stays.
    let raised = heights::driven_offset(&job.rig);
    let lean = |up: Length, across: Length| Angle::from_radians((up / across).atan());
    let of_link = lean(pitman.1 + raised - knuckle.1, pitman.0 - knuckle.0);
    let of_bar = lean(view.rise(), view.reach() * view.frame_eye_side().sign());
    Some((of_bar - of_link).abs())
}

/// Whether somebody complains that it steps sideways.
#[must_use]
pub fn side_stepping(job: &Job) -> bool {
    job.complaints.iter().any(Complaint::is_side_stepping)
}
