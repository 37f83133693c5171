//! Which stages a job needs: those of the work it is for, and any that hold something already.

use crate::cautions::Stage;
use crate::document::{Bracketing, Found, Job, PlanForm, Purpose, SwayPlan};

/// The stages of one kind of work, besides Rig, Bolt-up and Prove, which every work has.
const fn stages_of(purpose: Purpose) -> &'static [Stage] {
    match purpose {
        Purpose::CentreAxle | Purpose::SwapBar => &[Stage::Tape, Stage::Bar],
        Purpose::LevelBar => &[Stage::Tape, Stage::Bar, Stage::Bracket],
        Purpose::ClearSomething => &[Stage::Tape, Stage::Bar, Stage::Bracket, Stage::Cycle],
        Purpose::FitSwayLinks | Purpose::ChooseSwayBar => &[Stage::Sway],
        Purpose::ConvertToYLink => &[Stage::Tape, Stage::Bracket, Stage::Cycle],
        Purpose::CheckWork => &[Stage::Tape, Stage::Bar, Stage::Cycle],
    }
}

/// Whether a stage holds something a person typed or chose: it is never put out of sight.
fn holds(job: &Job, stage: Stage) -> bool {
    let plans = &job.setups.plans;
    match stage {
        Stage::Rig | Stage::BoltUp | Stage::Prove => true,
        Stage::Tape => !job.sheets.is_empty(),
        Stage::Bar => job.setups.found != Found::default() || !job.setups.rounds.is_empty(),
        // A bar that goes in where the old one was is entered, and compared, in stage Bar.
        Stage::Bracket if job.to_do.contains(&Purpose::SwapBar) => {
            let but_bars = Bracketing { bars: Vec::new(), stock_length: None, ..job.bracket.clone() };
            let moves = |plan: &PlanForm| plan.axle.is_some() || plan.frame.is_some();
            !but_bars.is_empty() || plans.chosen.iter().any(moves)
        }
        Stage::Bracket => !job.bracket.is_empty() || plans.chosen.is_some(),
        Stage::Cycle => !job.hardpoints.is_empty() || plans.trial.is_some(),
        Stage::Sway => !job.sway.is_empty() || plans.sway != SwayPlan::default(),
    }
}

/// Whether this job's work needs a stage. Where nobody said what is to be done, or every stage was asked for, all are.
#[must_use]
pub(super) fn needs(job: &Job, stage: Stage) -> bool {
    job.to_do.is_empty()
        || job.all_stages
        || holds(job, stage)
        || job.to_do.iter().any(|purpose| stages_of(*purpose).contains(&stage))
}
