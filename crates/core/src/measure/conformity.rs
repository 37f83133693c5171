//! Whether something is proved: how likely it truly lies within a tolerance, given what was measured and how sure that
//! is (JCGM 106, conformity probability with a normal distribution).

use super::length::Length;

/// So likely it must lie within the tolerance to be proved.
pub const PROVED: f64 = 0.95;

/// Two sets of measurements are told apart from each other beyond so many standard uncertainties.
const COVERAGE: f64 = 2.0;

/// P(|true| ≤ tolerance) where `offset` was measured with the standard uncertainty `uncertainty`:
/// Φ((tol − e)/u) − Φ((−tol − e)/u); certain one way or the other where the uncertainty is nought.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::conformity::within;
///
/// // Two standard deviations either way hold 95.45 in 100.
/// let mm = Length::from_mm;
/// assert!((within(mm(0.0), mm(1.0), mm(2.0)) - 0.9545).abs() < 1e-4);
/// ```
#[must_use]
pub fn within(offset: Length, uncertainty: Length, tolerance: Length) -> f64 {
    let (e, u, tol) = (offset.to_mm(), uncertainty.to_mm(), tolerance.to_mm());
    if u <= 0.0 {
        return if e.abs() <= tol { 1.0 } else { 0.0 };
    }
    let below = |limit: f64| 0.5 * libm::erfc(-(limit - e) / (u * std::f64::consts::SQRT_2));
    below(tol) - below(-tol)
}

/// Whether it is proved to lie within the tolerance.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::conformity::proves;
///
/// let mm = Length::from_mm;
/// assert!(proves(mm(0.0), mm(1.0), mm(2.0)));
/// assert!(!proves(mm(1.0), mm(1.0), mm(2.0)));
/// ```
#[must_use]
pub fn proves(offset: Length, uncertainty: Length, tolerance: Length) -> bool {
    within(offset, uncertainty, tolerance) >= PROVED
}

/// The smallest tolerance that a measurement proves, to a hundredth of a millimetre, rounded up.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::conformity::provable;
///
/// // 1.96 standard deviations hold 95 in 100.
/// let least = provable(Length::ZERO, Length::from_mm(1.0)).to_mm();
/// assert!((least - 1.96).abs() < 0.02);
/// ```
#[must_use]
pub fn provable(offset: Length, uncertainty: Length) -> Length {
    let (mut low, mut high) = (0.0, offset.abs().to_mm() + 4.0 * uncertainty.to_mm() + 0.01);
    while high - low > 0.01 {
        let middle = f64::midpoint(low, high);
        if proves(offset, uncertainty, Length::from_mm(middle)) {
            high = middle;
        } else {
            low = middle;
        }
    }
    Length::from_mm(high)
}

/// The largest offset that could still be proved to be within the tolerance; nought where none could.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::conformity::most_proved;
///
/// // Far inside a wide tolerance one side alone counts: 1.645 standard deviations from it.
/// let most = most_proved(Length::from_mm(1.0), Length::from_mm(10.0)).to_mm();
/// assert!((most - (10.0 - 1.645)).abs() < 0.02);
/// ```
#[must_use]
pub fn most_proved(uncertainty: Length, tolerance: Length) -> Length {
    let (mut low, mut high) = (0.0, tolerance.to_mm().max(0.0));
    while high - low > 0.01 {
        let middle = f64::midpoint(low, high);
        if proves(Length::from_mm(middle), uncertainty, tolerance) {
            low = middle;
        } else {
            high = middle;
        }
    }
    Length::from_mm(low)
}

/// Whether two figures, each with its own standard uncertainty in quadrature in `uncertainty`, agree.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::conformity::agree;
///
/// let mm = Length::from_mm;
/// assert!(agree(mm(10.0), mm(11.9), mm(1.0)) && !agree(mm(10.0), mm(12.1), mm(1.0)));
/// ```
#[must_use]
pub fn agree(one: Length, other: Length, uncertainty: Length) -> bool {
    (one - other).abs() <= uncertainty * COVERAGE
}

/// The mean of two figures weighed by their variances, and its standard uncertainty; each with its own, as
/// (figure, standard uncertainty). A figure that is certain is the mean.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::conformity::weighed;
///
/// // One of twice the uncertainty counts a quarter as much: (4·10 + 1·15) / 5.
/// let mm = Length::from_mm;
/// let (mean, sure) = weighed((mm(10.0), mm(1.0)), (mm(15.0), mm(2.0)));
/// assert!((mean.to_mm() - 11.0).abs() < 1e-12);
/// assert!((sure.to_mm() - (4.0_f64 / 5.0).sqrt()).abs() < 1e-12);
/// ```
#[must_use]
pub fn weighed((one, a): (Length, Length), (other, b): (Length, Length)) -> (Length, Length) {
    let (a, b) = (a.to_mm().powi(2), b.to_mm().powi(2));
    if a + b <= 0.0 {
        return ((one + other) / 2.0, Length::ZERO);
    }
    let share = b / (a + b);
    (one * share + other * (1.0 - share), Length::from_mm((a * b / (a + b)).sqrt()))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    #[test]
    fn a_millimetre_and_a_half_is_proved_to_nine_tenths_of_a_millimetre() {
        // By table: Φ(1.6667) = 0.9522, Φ(−5) is nothing.
        assert!((within(mm(1.5), mm(0.9), mm(3.0)) - 0.9522).abs() < 2e-4);
        assert!(proves(mm(1.5), mm(0.9), mm(3.0)));
        assert!(!proves(mm(1.6), mm(0.9), mm(3.0)));
    }

    #[test]
    fn a_centred_figure_is_proved_at_nearly_two_of_its_uncertainty() {
        // By table: 2Φ(1.96) − 1 = 0.95.
        assert!((within(mm(0.0), mm(1.0), mm(1.959_964)) - 0.95).abs() < 1e-6);
        assert!((provable(mm(0.0), mm(1.0)).to_mm() - 1.96).abs() < 0.011);
        // Far from nought one side alone counts: 1.645 of them.
        assert!((provable(mm(10.0), mm(1.0)).to_mm() - 11.645).abs() < 0.011);
    }

    #[test]
    fn what_is_proved_and_what_could_be_are_the_two_sides_of_one_border() {
        // From the specification: 1.5 at 0.9 of 3 is proved with a little to spare, 1.645 · 0.9 = 1.48.
        assert!((most_proved(mm(0.9), mm(3.0)).to_mm() - 1.52).abs() < 0.02);
        assert!(most_proved(mm(2.0), mm(3.0)).to_mm() < 0.02);
    }

    #[test]
    fn what_is_certain_is_within_or_not() {
        assert!((within(mm(2.0), mm(0.0), mm(3.0)) - 1.0).abs() < 1e-12);
        assert!(within(mm(4.0), mm(0.0), mm(3.0)).abs() < 1e-12);
    }

    #[test]
    fn the_surer_of_two_counts_for_more() {
        // By hand: variances 1 and 4, shares 0.8 and 0.2, variance 0.8.
        let (mean, u) = weighed((mm(1.0), mm(1.0)), (mm(2.0), mm(2.0)));
        assert!((mean.to_mm() - 1.2).abs() < 1e-12);
        assert!((u.to_mm() - 0.8_f64.sqrt()).abs() < 1e-12);
    }

    #[test]
    fn a_sidewall_stays_as_unsure_as_the_sidewall() {
        // From the specification: u_rep 0.45, u_p 0.3, feature 1.5 give 1.54 and not 0.27.
        let (_, u) = weighed((mm(0.0), mm(0.45)), (mm(0.0), mm(0.45_f64.hypot(0.3))));
        let with_feature = u.to_mm().hypot(1.5);
        assert!((with_feature - 1.54).abs() < 0.01);
    }
}
