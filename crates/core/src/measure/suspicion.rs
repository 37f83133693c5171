//! How well a suspected fault explains figures, integrated over how large it may be.
//!
//! Figures that were measured differ from what they should be by errors that are normal and partly shared (two sheets
//! of one reference point share its error): a vector of n differences and its n × n covariance. A fault of a size θ
//! shifts each figure and may scatter it. Its evidence is ∫ N(d; shift(θ), C + scatter(θ)) p(θ) dθ, summed over a grid
//! of θ; what is left of the grid after it says how large the fault is.
//!
//! Source: Bayes' rule for a normal likelihood; the density by the Cholesky factor of the covariance.

use nalgebra::{Cholesky, DMatrix, DVector, Dyn};

/// Half the log of 2π, the constant of each figure's density.
const HALF_LOG_TWO_PI: f64 = 0.918_938_533_204_672_8;

/// Figures as they differ from what they should be, with what their errors have in common.
#[derive(Clone, Debug)]
pub struct Figures {
    differences: DVector<f64>,
    covariance: DMatrix<f64>,
    factor: Cholesky<f64, Dyn>,
}

/// What a fault of one size does.
#[derive(Clone, Debug, PartialEq)]
pub struct Effect {
    /// By how much it shifts each figure, in that figure's unit; n of them.
    pub shift: Vec<f64>,
    /// The variance it adds to each figure; n of them, or none where it scatters nothing.
    pub scatter: Vec<f64>,
}

/// A size a fault may have, and how likely that is before anything was measured.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Size {
    /// Which of several like places it is at: a sheet, a hole.
    pub place: usize,
    /// How large.
    pub value: f64,
    /// Its weight; those of a fault add up to one.
    pub weight: f64,
}

/// What the figures say of a fault.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Suspicion {
    /// The log of the evidence.
    pub log_evidence: f64,
    /// The middle of its size.
    pub mean: f64,
    /// Its standard deviation.
    pub deviation: f64,
}

impl Figures {
    /// From n differences and their n × n covariance, row by row. `None` where the two do not go together, or the
    /// covariance is none: not positive definite.
    ///
    /// ```
    /// use derecho_core::measure::suspicion::Figures;
    ///
    /// assert!(Figures::new(&[3.0], &[4.0]).is_some());
    /// assert!(Figures::new(&[3.0, 1.0], &[1.0, 2.0, 2.0, 1.0]).is_none());
    /// ```
    #[must_use]
    pub fn new(differences: &[f64], covariance: &[f64]) -> Option<Self> {
        let n = differences.len();
        if covariance.len() != n * n {
            return None;
        }
        let covariance = DMatrix::from_row_slice(n, n, covariance);
        let factor = Cholesky::new(covariance.clone())?;
        Some(Self { differences: DVector::from_row_slice(differences), covariance, factor })
    }

    /// How many figures.
    #[must_use]
    pub fn len(&self) -> usize {
        self.differences.len()
    }

    /// Whether there are none.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.differences.is_empty()
    }

    /// The log of their density where nothing shifts or scatters them.
    ///
    /// ```
    /// use derecho_core::measure::suspicion::Figures;
    ///
    /// // One figure a deviation off: ln(1/√(2π)) − ½.
    /// let figures = Figures::new(&[2.0], &[4.0]).unwrap();
    /// let by_hand = -(2.0 * std::f64::consts::PI).sqrt().ln() - 2.0_f64.ln() - 0.5;
    /// assert!((figures.log_density() - by_hand).abs() < 1e-12);
    /// ```
    #[must_use]
    pub fn log_density(&self) -> f64 {
        self.constant() - 0.5 * self.whitened(&self.differences).norm_squared()
    }

    /// The log of their density under a fault of one size.
    #[must_use]
    pub fn log_density_under(&self, effect: &Effect) -> f64 {
        self.under(effect).map_or(f64::NEG_INFINITY, |figures| figures.log_density())
    }

    /// What is left of them once a fault of one size has explained what it does.
    #[must_use]
    pub fn under(&self, effect: &Effect) -> Option<Self> {
        let shift = DVector::from_row_slice(&effect.shift);
        let differences = &self.differences - shift;
        if !effect.scatters() {
            return Some(Self { differences, ..self.clone() });
        }
        let mut covariance = self.covariance.clone();
        for (place, variance) in effect.scatter.iter().enumerate() {
            covariance[(place, place)] += variance;
        }
        let factor = Cholesky::new(covariance.clone())?;
        Some(Self { differences, covariance, factor })
    }

    /// A fault's evidence, integrated over its sizes, each with what it does, and how large it is by the figures. `None`
    /// without a size.
    #[must_use]
    pub fn suspicion(&self, fault: &[(Size, Effect)]) -> Option<Suspicion> {
        posterior(fault, &self.logs(fault))
    }

    /// The log of weight and density of every size.
    fn logs(&self, fault: &[(Size, Effect)]) -> Vec<f64> {
        if fault.iter().any(|(_, effect)| effect.scatters()) {
            return fault
                .iter()
                .map(|(size, effect)| size.weight.ln() + self.log_density_under(effect))
                .collect();
        }
        // Nothing but shifts: the factor is the same for all of them.
        let (differences, constant) = (self.whitened(&self.differences), self.constant());
        let log = |(size, effect): &(Size, Effect)| {
            let shift = self.whitened(&DVector::from_row_slice(&effect.shift));
            size.weight.ln() + constant - 0.5 * (&differences - shift).norm_squared()
        };
        fault.iter().map(log).collect()
    }

    /// What the figures say of a fault where there is another beside it, their effects added, integrated over both: the
    /// evidence is that of the two together, the size that of the first. `None` without a size.
    #[must_use]
    pub fn suspicion_beside(&self, one: &[(Size, Effect)], other: &[(Size, Effect)]) -> Option<Suspicion> {
        posterior(one, &self.logs_beside(one, other))
    }

    /// The log of weight and density of every size of one fault, integrated over the other.
    fn logs_beside(&self, one: &[(Size, Effect)], other: &[(Size, Effect)]) -> Vec<f64> {
        let scatters = |fault: &[(Size, Effect)]| fault.iter().any(|(_, effect)| effect.scatters());
        if scatters(one) {
            let under = |effect: &Effect| self.under(effect).map(|left| log_sum(&left.logs(other)));
            let log = |(size, effect): &(Size, Effect)| {
                under(effect).map_or(f64::NEG_INFINITY, |log| size.weight.ln() + log)
            };
            return one.iter().map(log).collect();
        }
        if scatters(other) {
            let each: Vec<Vec<f64>> = other
                .iter()
                .filter_map(|(size, effect)| Some((size.weight.ln(), self.under(effect)?)))
                .map(|(log, left)| left.logs(one).into_iter().map(|of_one| of_one + log).collect())
                .collect();
            let of = |place: usize| log_sum(&each.iter().map(|logs| logs[place]).collect::<Vec<_>>());
            return (0..one.len()).map(of).collect();
        }
        let whitened = |fault: &[(Size, Effect)]| -> Vec<(f64, DVector<f64>)> {
            let each =
                fault.iter().map(|(size, effect)| (size.weight.ln(), DVector::from_row_slice(&effect.shift)));
            each.map(|(log, shift)| (log, self.whitened(&shift))).collect()
        };
        let others: Vec<(f64, DVector<f64>)> = whitened(other)
            .into_iter()
            // |d − b|² = |d|² − 2 d·b + |b|².
            .map(|(log, shift)| (log - 0.5 * shift.norm_squared(), shift))
            .collect();
        let (differences, constant) = (self.whitened(&self.differences), self.constant());
        let mut rest = vec![0.0; others.len()];
        whitened(one)
            .into_iter()
            .map(|(log, shift)| {
                let left = &differences - shift;
                for (rest, (log, shift)) in rest.iter_mut().zip(&others) {
                    *rest = log + left.dot(shift);
                }
                log + constant - 0.5 * left.norm_squared() + log_sum(&rest)
            })
            .collect()
    }

    /// Figures whose errors are one unit each and share nothing: L⁻¹ d of the factor L.
    fn whitened(&self, figures: &DVector<f64>) -> DVector<f64> {
        let mut whitened = figures.clone();
        // The factor of a positive definite covariance has no nought on its diagonal.
        self.factor.l_dirty().solve_lower_triangular_mut(&mut whitened);
        whitened
    }

    /// What a density has in common whatever the differences are: −Σ ln Lᵢᵢ − n ln √2π.
    fn constant(&self) -> f64 {
        let lower = self.factor.l_dirty();
        let log_root: f64 = (0..self.len()).map(|place| lower[(place, place)].ln()).sum();
        -log_root - HALF_LOG_TWO_PI * self.len() as f64
    }
}

impl Effect {
    fn scatters(&self) -> bool {
        self.scatter.iter().any(|variance| *variance != 0.0)
    }
}

/// The log of a sum whose parts are given by their logs; −∞ for none.
///
/// ```
/// use derecho_core::measure::suspicion::log_sum;
///
/// assert!((log_sum(&[2.0_f64.ln(), 3.0_f64.ln()]) - 5.0_f64.ln()).abs() < 1e-12);
/// ```
#[must_use]
pub fn log_sum(logs: &[f64]) -> f64 {
    let most = logs.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    if most == f64::NEG_INFINITY {
        return most;
    }
    most + logs.iter().map(|log| (log - most).exp()).sum::<f64>().ln()
}

fn posterior(fault: &[(Size, Effect)], logs: &[f64]) -> Option<Suspicion> {
    if fault.is_empty() {
        return None;
    }
    let log_evidence = log_sum(logs);
    let shares: Vec<f64> = logs.iter().map(|log| (log - log_evidence).exp()).collect();
    let with = || fault.iter().map(|(size, _)| size.value).zip(shares.iter().copied());
    let mean: f64 = with().map(|(value, share)| value * share).sum();
    let variance: f64 = with().map(|(value, share)| (value - mean).powi(2) * share).sum();
    Some(Suspicion { log_evidence, mean, deviation: variance.sqrt() })
}

/// Sizes of a fault that is as likely either way, normal with this deviation: an odd number of them over ±3 deviations.
///
/// ```
/// use derecho_core::measure::suspicion::normal;
///
/// let sizes = normal(2.0, 61, 0);
/// let sum: f64 = sizes.iter().map(|size| size.weight).sum();
/// let variance: f64 = sizes.iter().map(|size| size.weight * size.value.powi(2)).sum();
/// assert!((sum - 1.0).abs() < 1e-12 && (variance - 4.0).abs() < 0.15);
/// ```
#[must_use]
pub fn normal(deviation: f64, count: usize, place: usize) -> Vec<Size> {
    let all = even((-3.0 * deviation, 3.0 * deviation), count, place);
    weighed(all, |value| (-0.5 * (value / deviation).powi(2)).exp())
}

/// Sizes anywhere between two figures, as likely here as there.
///
/// ```
/// use derecho_core::measure::suspicion::even;
///
/// let sizes = even((1.0, 3.0), 5, 0);
/// assert_eq!(sizes.iter().map(|size| size.value).collect::<Vec<_>>(), [1.0, 1.5, 2.0, 2.5, 3.0]);
/// ```
#[must_use]
pub fn even((low, high): (f64, f64), count: usize, place: usize) -> Vec<Size> {
    let steps = count.max(2) - 1;
    let at = |step: usize| low + (high - low) * (step as f64 / steps as f64);
    let weight = 1.0 / (steps as f64 + 1.0);
    (0..=steps).map(|step| Size { place, value: at(step), weight }).collect()
}

fn weighed(sizes: Vec<Size>, weight: impl Fn(f64) -> f64) -> Vec<Size> {
    let sum: f64 = sizes.iter().map(|size| weight(size.value)).sum();
    sizes.into_iter().map(|size| Size { weight: weight(size.value) / sum, ..size }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn shifting_one(sizes: Vec<Size>) -> Vec<(Size, Effect)> {
        sizes
            .into_iter()
            .map(|size| (size, Effect { shift: vec![size.value], scatter: Vec::new() }))
            .collect()
    }

    /// Of one figure d = θ + error, both normal, everything is known in closed form: the evidence is N(d; 0, σ² + τ²),
    /// θ is d τ²/(σ² + τ²) with the variance σ²τ²/(σ² + τ²).
    #[test]
    fn one_figure_and_a_normal_fault_have_a_closed_form() {
        let (sigma, tau, d) = (1.5_f64, 6.0_f64, 7.0_f64);
        let figures = Figures::new(&[d], &[sigma * sigma]).unwrap();
        let found = figures.suspicion(&shifting_one(normal(tau, 241, 0))).unwrap();
        let sum = sigma.powi(2) + tau.powi(2);
        let evidence = -0.5 * d * d / sum - 0.5 * (2.0 * std::f64::consts::PI * sum).ln();
        assert!((found.log_evidence - evidence).abs() < 0.01, "{} {evidence}", found.log_evidence);
        assert!((found.mean - d * tau.powi(2) / sum).abs() < 0.01);
        let deviation = (sigma.powi(2) * tau.powi(2) / sum).sqrt();
        assert!((found.deviation - deviation).abs() < 0.01);
    }

    /// A scatter is a wider error: the density of N(0, 9 + 16) at 5.
    #[test]
    fn what_scatters_widens_the_error() {
        let figures = Figures::new(&[5.0], &[9.0]).unwrap();
        let effect = Effect { shift: vec![0.0], scatter: vec![16.0] };
        let by_hand = -0.5 * 25.0 / 25.0 - (5.0 * (2.0 * std::f64::consts::PI).sqrt()).ln();
        assert!((figures.log_density_under(&effect) - by_hand).abs() < 1e-12);
    }

    /// What two figures share drops out of their difference: of a shared error of 100 and own ones of 1 the log density
    /// of (10, 10) is that of a common shift, while (10, −10) is hardly possible.
    #[test]
    fn a_shared_error_explains_two_figures_that_are_off_together() {
        let covariance = [10_001.0, 10_000.0, 10_000.0, 10_001.0];
        let together = Figures::new(&[10.0, 10.0], &covariance).unwrap().log_density();
        let apart = Figures::new(&[10.0, -10.0], &covariance).unwrap().log_density();
        // ½ · (20/√2)²/1 = 100 apart; together ½ · 200/20001.
        assert!((together - apart - (100.0 - 100.0 / 20_001.0)).abs() < 1e-6);
    }

    /// Two normal faults of one figure are one fault of both variances.
    #[test]
    fn two_faults_add_up() {
        let figures = Figures::new(&[8.0], &[1.0]).unwrap();
        let [three, four] = [normal(3.0, 121, 0), normal(4.0, 121, 0)].map(shifting_one);
        let both = figures.suspicion_beside(&three, &four).unwrap();
        let one = figures.suspicion(&shifting_one(normal(5.0, 121, 0))).unwrap();
        assert!((both.log_evidence - one.log_evidence).abs() < 0.02, "{both:?} {one:?}");
        // Of 8 the first explains its part: 8 · 9/(9 + 16 + 1), with the variance 9 · 17/26; sizes end at
        // three deviations, which takes a little off both.
        assert!((both.mean - 8.0 * 9.0 / 26.0).abs() < 0.03, "{both:?}");
        assert!((both.deviation - (9.0_f64 * 17.0 / 26.0).sqrt()).abs() < 0.08, "{both:?}");
        // A scatter of 9 beside a shift of one deviation of 4: one fault of both variances again.
        let scatters =
            [(Size { place: 0, value: 3.0, weight: 1.0 }, Effect { shift: vec![0.0], scatter: vec![9.0] })];
        let both = figures.suspicion_beside(&four, &scatters).unwrap();
        assert!((both.log_evidence - one.log_evidence).abs() < 0.02, "{both:?} {one:?}");
    }
}
