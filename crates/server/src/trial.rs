//! `derecho trial`: its progress, and its result as a table.

use std::io::{IsTerminal as _, Write as _};

use derecho_practice::trial::{Trial, TrialSettings, trial};

/// Runs a trial on every core, telling how far it is where somebody watches.
pub(crate) fn run(mut settings: TrialSettings) -> Trial {
    settings.threads = std::thread::available_parallelism().map_or(1, usize::from);
    let watched = std::io::stderr().is_terminal();
    let each = (settings.vehicles / 100).max(1);
    let reported = trial(&settings, &|done| {
        if watched && done.is_multiple_of(each) {
            let _ = write!(std::io::stderr(), "\r{done} of {} vehicles", settings.vehicles);
        }
    });
    if watched {
        let _ = writeln!(std::io::stderr());
    }
    reported
}

/// A trial as somebody reads it.
pub(crate) fn table(trial: &Trial) -> String {
    let share = |count: usize, of: usize| {
        if of == 0 { "  none".to_owned() } else { format!("{:6.2} %", 100.0 * count as f64 / of as f64) }
    };
    let line = |name: &str, count: usize, of: usize| format!("{name:<66}{count:>8}  {}", share(count, of));
    let whose = if trial.rule_of_thumb { "by the rule of thumb" } else { "by Derecho's answer" };
    let mut lines = vec![
        format!("{} vehicles, {} measuring, {whose}, seed {}", trial.vehicles, trial.technician, trial.seed),
        String::new(),
        line("first answer conclusive", trial.reported, trial.vehicles),
        line(
            "  of those, really within 3 mm after the first adjustment",
            trial.within_after_first,
            trial.reported,
        ),
        line("  made worse, and not within 3 mm", trial.made_worse, trial.reported),
        line("  further out than before, still within 3 mm", trial.further_within, trial.reported),
        line("job closed", trial.settled, trial.vehicles),
        line("  of those, really more than 6 mm out", trial.settled_wrong, trial.settled),
        line("really within 3 mm at the end", trial.within_at_end, trial.vehicles),
        line("gave up", trial.given_up, trial.vehicles),
    ];
    if !trial.rule_of_thumb {
        lines.extend([
            line("measurement sets too uncertain to call", trial.cannot_tell, trial.intervals),
            line(
                "  of those, axle really within that uncertainty",
                trial.cannot_tell_right,
                trial.cannot_tell,
            ),
            line("95 % intervals that contain the true value", trial.intervals_hold, trial.intervals),
            line("bars that really hit something in their travel", trial.contacts, trial.vehicles),
            line("  of those, predicted by the Cycle screen", trial.contacts_foretold, trial.contacts),
            line("  predicted where nothing hits", trial.contacts_cried, trial.vehicles - trial.contacts),
            line(
                "conclusive: within 3 mm after one adjustment, rule of thumb on the same measurements",
                trial.thumb_within_after_first,
                trial.reported,
            ),
            line(
                "conclusive or not: within 3 mm after one adjustment, rule of thumb on the same",
                trial.thumb_within_of_all,
                trial.vehicles,
            ),
            line(
                "conclusive: within 3 mm after one adjustment by eye along a straightedge",
                trial.eye_within_after_first,
                trial.reported,
            ),
        ]);
    }
    let each = trial.readings as f64 / trial.vehicles.max(1) as f64;
    lines.push(format!("{:<66}{each:>8.1}", "tape readings per vehicle"));
    lines.join("\n")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_table_has_shares_and_no_division_by_nought() {
        let reported = Trial { vehicles: 200, reported: 100, within_after_first: 99, ..Trial::default() };
        let table = table(&reported);
        assert!(table.contains("99   99.00 %"), "{table}");
        assert!(table.contains("100   50.00 %"), "{table}");
        // Nothing was settled: of nothing there is no share.
        assert!(
            table.lines().any(|line| line.contains("more than 6 mm") && line.ends_with("none")),
            "{table}"
        );
    }
}
