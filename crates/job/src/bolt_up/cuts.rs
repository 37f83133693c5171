//! What is cut: which stage has its figures and its template. Not here: the figures themselves.

use serde::Serialize;
use utoipa::ToSchema;

use super::message::{BoltUpMessage, CutKind};
use super::situation::Situation;
use crate::cautions::Stage;
use crate::document::Job;
use crate::message::Label;

/// A line of the cutting schedule.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CutLine {
    /// What is cut.
    #[schema(value_type = String)]
    pub name: Label,
    /// Where its figures and its template are.
    #[schema(value_type = String)]
    pub says: Label,
    /// The stage that has them.
    pub stage: Stage,
}

/// What this plan has somebody cut.
pub(super) fn lines(job: &Job, situation: &Situation) -> Vec<CutLine> {
    let builds = situation.bar.as_ref().is_some_and(|bar| bar.made_to_length);
    let sets_links = situation.links().is_some_and(|links| links.length.is_some() && !links.fixed);
    let rods = sets_links && job.sway.rod.eye_to_tip.is_some();
    let panel =
        (situation.links().is_some() || situation.installs_sway_bar()) && !job.sway.room.panels.is_empty();
    [
        builds.then_some((CutKind::BarStock, Stage::Bar)),
        rods.then_some((CutKind::LinkRods, Stage::Sway)),
        panel.then_some((CutKind::Panel, Stage::Sway)),
    ]
    .into_iter()
    .flatten()
    .map(|(cut, stage)| {
        let (name, says) = (BoltUpMessage::CutName(cut), BoltUpMessage::CutSays(cut));
        CutLine { name: name.into(), says: says.into(), stage }
    })
    .collect()
}
