//! Hole and link by build stage: as it is, after the next lift, with the tent on the roof.
//!
//! A stage raises the body on both its axles alike and keeps the travel about the new height. Everything is reckoned in the
//! pose the axle has there. Not here: the rates of the holes as it stands (`rates`).

use crate::message::Message;
use derecho_core::measure::{Angle, Force, Length};
use derecho_core::pose::mechanism::{Mechanism, Posed};
use derecho_core::sway::body_roll::roll_gradient;
use derecho_core::sway::{Arm, BarRate};
use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::assemble;
use crate::assembly::weights::weight_of;
use crate::cycle::steer::{Beside, beside_in};
use crate::document::sway::{BuildStage, SwayKind};
use crate::document::{ArmHoleId, Job, Sway, length_of};
use crate::setups::Resolved;
use crate::sway::links::{link_for_aim, works_about};
use crate::sway::message::{StageFacts, SwayMessage};
use crate::sway::places;
use crate::sway::places::{Places, linkage_of};
use crate::sway::rates::{bar_rate, bending_arm};
use crate::sway::road_and_trail::Base;
use crate::sway::splined::wanted_roll;

/// Hole and link of one stage.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BuildStageResult {
    /// What it is called; empty for the vehicle as planned in this job.
    pub name: String,
    /// How much higher the body stands than in this job, + up.
    pub raised_mm: Length,
    /// The hole in use, or the one to use then; absent where arm and link work in none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hole: Option<ArmHoleId>,
    /// Its number, counted from the stiff end.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hole_number: Option<usize>,
    /// The link, eye to eye: as planned, or the one that aims its arms as in this job.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link_mm: Option<Length>,
    /// Roll on the road, degrees per g; absent where it would not stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub road_deg_per_g: Option<f64>,
    /// Whether it rolls no more than is wanted for its use.
    pub enough: bool,
    /// Angle of the drag link in front view, + pitman end higher; absent where none was measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub drag_link_deg: Option<Angle>,
    /// How far it leans apart from the bar, without a sign.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub apart_deg: Option<Angle>,
    /// In words.
    pub says: Message,
}

/// The stages of a job, the vehicle as planned first; none where none was typed or its bar is not measured.
#[must_use]
pub fn of_job(job: &Job, resolved: &Resolved) -> Vec<BuildStageResult> {
    let job = &Job { sway: resolved.sway.plan.clone(), ..job.clone() };
    let typed = !job.sway.build_stages.is_empty() && job.sway.kind.is_some_and(|kind| kind != SwayKind::None);
    if !typed {
        return Vec::new();
    }
    let Ok(assembly) = assemble(job, resolved.measured_setups()) else { return Vec::new() };
    let mechanism = assembly.mechanism();
    let Ok(places) = linkage_of(job, &job.sway) else {
        return Vec::new();
    };
    by_stage(job, mechanism, &places, &Base::of(job, mechanism))
}

/// The same of a bar and a mechanism that are there.
pub(crate) fn by_stage(
    job: &Job,
    mechanism: &Mechanism,
    places: &Places,
    base: &Base,
) -> Vec<BuildStageResult> {
    if job.sway.build_stages.is_empty() {
        return Vec::new();
    }
    let here = AtStage { job, mechanism, places, base };
    let now = here.row(&BuildStage::default(), true);
    let later = job.sway.build_stages.iter().filter_map(|stage| here.row(stage, false));
    now.into_iter().chain(later).collect()
}

struct AtStage<'a> {
    job: &'a Job,
    mechanism: &'a Mechanism,
    places: &'a Places,
    base: &'a Base,
}

/// A hole at a stage.
struct Hole {
    place: usize,
    arm: Length,
    link: Length,
    road: Option<f64>,
}

impl AtStage<'_> {
    fn row(&self, stage: &BuildStage, now: bool) -> Option<BuildStageResult> {
        let (form, raised) = (&self.job.sway, length_of(&stage.raised).unwrap_or(Length::ZERO));
        let posed = self.posed(raised)?;
        let wanted = wanted_roll(self.job.rig.used_for).to_degrees();
        let in_use = form.place_of(&form.hole);
        let holes = (0..form.holes.len()).filter(|place| !now || *place == in_use);
        let mut holes: Vec<Hole> =
            holes.filter_map(|place| self.hole(place, stage, raised, &posed, now)).collect();
        // The softest that still rolls no more than is wanted, and the stiffest where none does.
        holes.sort_by(|a, b| b.arm.to_mm().total_cmp(&a.arm.to_mm()));
        let enough = |hole: &Hole| hole.road.is_some_and(|road| road <= wanted);
        let hole = holes.iter().find(|hole| enough(hole)).or_else(|| holes.last());
        let id = hole.map(|hole| form.holes[hole.place].id.clone());
        let beside = beside_in(self.mechanism, &posed);
        let facts = StageFacts {
            name: stage.name.trim().to_owned(),
            hole: id.as_ref().and_then(|id| form.from_the_stiff_end(id)),
            link: hole.map(|hole| hole.link),
            road: hole.and_then(|hole| hole.road),
            wanted: (!hole.is_some_and(enough)).then_some(wanted),
            beside,
        };
        Some(BuildStageResult {
            name: facts.name.clone(),
            raised_mm: raised,
            hole_number: facts.hole.map(|(number, _)| number),
            hole: id,
            link_mm: facts.link,
            road_deg_per_g: facts.road,
            enough: facts.wanted.is_none(),
            drag_link_deg: beside.map(|Beside { drag_link, .. }| drag_link),
            apart_deg: beside.and_then(|beside| beside.apart),
            says: SwayMessage::Stage(facts).into(),
        })
    }

    /// The axle as it hangs under a body that stands so much higher.
    fn posed(&self, raised: Length) -> Option<Posed> {
        let driven = self.mechanism.at_driven_height().ok()?;
        let by = raised.to_mm();
        self.mechanism.pose(driven.left - by, driven.right - by, driven.trail()).ok()
    }

    /// None where arm and link do not work about that height.
    fn hole(
        &self,
        place: usize,
        stage: &BuildStage,
        raised: Length,
        posed: &Posed,
        now: bool,
    ) -> Option<Hole> {
        let form: &Sway = &self.job.sway;
        let arm = form.holes[place].arm.length();
        let there = Places { arm: Arm { length: arm, ..self.places.arm }, ..self.places.clone() };
        let link = if now { there.arm.link } else { link_for_aim(self.job, self.mechanism, &there, raised)? };
        let there = Places { arm: Arm { link, ..there.arm }, ..there };
        if !works_about(self.mechanism, &there, raised) {
            return None;
        }
        let rate = BarRate { bending_arm: bending_arm(form.kind, arm), ..bar_rate(form, &there) };
        let bar = places::twist_per_roll(&there, posed).map(|per_roll| rate.roll_rate(per_roll))?;
        let mut weighed = self.base.weighed.clone();
        weighed.roof = weight_of(&stage.roof_load).map_or(weighed.roof, |roof| roof.max(Force::ZERO));
        weighed.roof_height = weighed.roof_height + raised;
        let overturning = weighed.overturning(Length::from_mm(posed.roll_centre), raised);
        let road = roll_gradient(&self.base.this.with_bar(bar), &self.base.other, overturning);
        Some(Hole { place, arm, link, road: road.map(Angle::to_degrees) })
    }
}
