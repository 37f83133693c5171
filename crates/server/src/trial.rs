//! `derecho trial`: its progress, and its result as a table.

use std::io::{IsTerminal as _, Write as _};

use derecho_practice::faults::{FaultSettings, FaultTrial, fault_trial};
use derecho_practice::technician::Technician;
use derecho_practice::trial::{Trial, TrialSettings, trial};

/// Runs a trial on every core.
pub(crate) fn run(mut settings: TrialSettings) -> Trial {
    settings.threads = cores();
    watched(settings.vehicles, |progress| trial(&settings, progress))
}

/// Runs the trial of the cause on every core.
pub(crate) fn run_faults(vehicles: usize, seed: u64, technician: Technician) -> FaultTrial {
    let settings = FaultSettings { vehicles, seed, technician, threads: cores() };
    watched(vehicles, |progress| fault_trial(&settings, progress))
}

fn cores() -> usize {
    std::thread::available_parallelism().map_or(1, usize::from)
}

/// Told how many vehicles are done, from any thread.
type Progress<'a> = dyn Fn(usize) + Sync + 'a;

/// Runs it, telling how far it is where somebody watches.
fn watched<T>(vehicles: usize, run: impl FnOnce(&Progress<'_>) -> T) -> T {
    let watched = std::io::stderr().is_terminal();
    let each = (vehicles / 100).max(1);
    let reported = run(&|done| {
        if watched && done.is_multiple_of(each) {
            let _ = write!(std::io::stderr(), "\r{done} of {vehicles} vehicles");
        }
    });
    if watched {
        let _ = writeln!(std::io::stderr());
    }
    reported
}

fn share(count: usize, of: usize) -> String {
    if of == 0 { "  none".to_owned() } else { format!("{:6.2} %", 100.0 * count as f64 / of as f64) }
}

fn line(name: &str, count: usize, of: usize) -> String {
    format!("{name:<66}{count:>8}  {}", share(count, of))
}

/// The trial of the cause as somebody reads it.
pub(crate) fn faults_table(trial: &FaultTrial) -> String {
    let mut lines = vec![
        format!("{} vehicles, {} measuring, seed {}", trial.vehicles, trial.hands, trial.seed),
        String::new(),
        line("something is wrong", trial.faulty, trial.vehicles),
        line("  said to be conclusive after at most four checks", trial.told, trial.faulty),
        line("    a true cause named first", trial.first, trial.told),
        line("    a true cause among the first three", trial.among_three, trial.told),
        line("  conclusive or not: a true cause named first", trial.first_of_all, trial.faulty),
        line("  a true cause named by a fixed list of the usual four", trial.list_first, trial.faulty),
        line("nothing wrong", trial.healthy, trial.vehicles),
        line("  a cause named as conclusive", trial.accused, trial.healthy),
        line("  a cause named by the fixed list", trial.list_accused, trial.healthy),
        line("95 % intervals of a size that contain the true one", trial.sizes_hold, trial.sizes),
        format!("{:<66}{:>8.2}", "checks per vehicle", trial.checks as f64 / trial.vehicles.max(1) as f64),
        String::new(),
        format!(
            "{:<24}{:>6}{:>11}{:>11}{:>11}  taken for",
            "cause", "had", "conclusive", "first", "of three"
        ),
    ];
    for (suspect, of) in &trial.by_suspect {
        let mut mistaken: Vec<_> = of.mistaken_for.iter().collect();
        mistaken.sort_by(|one, other| other.1.cmp(one.1));
        let worst: Vec<String> =
            mistaken.iter().take(2).map(|(name, count)| format!("{name} {count}")).collect();
        let name = format!("{suspect:?}");
        lines.push(format!(
            "{name:<24}{:>6}{:>11}{:>11}{:>11}  {}",
            of.had,
            share(of.told, of.had),
            share(of.first, of.told),
            share(of.among_three, of.told),
            worst.join(", ")
        ));
    }
    lines.join("\n")
}

/// A trial as somebody reads it.
pub(crate) fn table(trial: &Trial) -> String {
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
