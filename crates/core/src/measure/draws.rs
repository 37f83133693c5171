//! Drawing raw readings within what they are good to, and what comes of it: Monte Carlo
//! with a named generator and seed, so that anybody gets the same numbers.

use rand::SeedableRng;
use rand_chacha::ChaCha8Rng;
use rand_distr::{Distribution, StandardNormal, Uniform};

use super::length::Length;

/// The generator, as it is named in results.
pub const GENERATOR: &str = "ChaCha8, seed_from_u64";
/// Draws where nobody asks for another number.
pub const DEFAULT_DRAWS: usize = 10_000;
/// The seed where nobody asks for another.
pub const DEFAULT_SEED: u64 = 1;

/// A source of raw readings.
#[derive(Clone, Debug)]
pub struct Draws {
    generator: ChaCha8Rng,
    half: Uniform<f64>,
}

impl Draws {
    /// From a seed.
    #[must_use]
    pub fn new(seed: u64) -> Self {
        // The bounds are finite and in order: this cannot be refused.
        let half = Uniform::new_inclusive(-0.5, 0.5).unwrap_or_else(|_| unreachable!("−½ is less than ½"));
        Self { generator: ChaCha8Rng::seed_from_u64(seed), half }
    }

    /// A normal error with this standard deviation.
    pub fn normal(&mut self, deviation: Length) -> Length {
        let draw: f64 = StandardNormal.sample(&mut self.generator);
        deviation * draw
    }

    /// An error anywhere within half a graduation, either way.
    pub fn graduation(&mut self, graduation: Length) -> Length {
        graduation * self.half.sample(&mut self.generator)
    }
}

/// The 2.5 and 97.5 % quantiles of drawn figures, in place, between the two nearest ranks;
/// None for fewer than forty.
///
/// ```
/// use derecho_core::measure::draws::middle_95;
///
/// let mut drawn: Vec<f64> = (0..1000).map(f64::from).collect();
/// let (low, high) = middle_95(&mut drawn).unwrap();
/// assert!((low - 25.0).abs() < 1.5 && (high - 974.0).abs() < 1.5);
/// ```
#[must_use]
pub fn middle_95(drawn: &mut [f64]) -> Option<(f64, f64)> {
    if drawn.len() < 40 {
        return None;
    }
    // Two ranks of ten thousand: what lies between need not be in order.
    let mut at = |share: f64| {
        let place = share * (drawn.len() - 1) as f64;
        let (_, low, above) = drawn.select_nth_unstable_by(place.floor() as usize, f64::total_cmp);
        let (low, next) = (*low, above.iter().copied().min_by(f64::total_cmp));
        next.map_or(low, |next| low + place.fract() * (next - low))
    };
    Some((at(0.025), at(0.975)))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn quantiles_of_a_hundred_and_one_even_steps() {
        let mut steps: Vec<f64> = (0..=100).rev().map(f64::from).collect();
        assert_eq!(middle_95(&mut steps), Some((2.5, 97.5)));
        assert_eq!(middle_95(&mut [1.0, 2.0]), None);
        // Between two ranks, in whatever order they come: of 0 to 49 by hand 1.225 and 47.775.
        let mut turned: Vec<f64> = (0..50).map(|step| f64::from(step * 7 % 50)).collect();
        let (low, high) = middle_95(&mut turned).unwrap();
        assert!((low - 1.225).abs() < 1e-12 && (high - 47.775).abs() < 1e-12, "{low} {high}");
        // Those that are all alike have nothing between them.
        assert_eq!(middle_95(&mut [3.0; 41]), Some((3.0, 3.0)));
    }

    #[test]
    fn normal_draws_have_their_deviation_and_graduations_their_width() {
        let mut draws = Draws::new(7);
        let count = 20_000;
        let normal: Vec<f64> = (0..count).map(|_| draws.normal(Length::from_mm(2.0)).to_mm()).collect();
        let mean = normal.iter().sum::<f64>() / f64::from(count);
        let deviation = (normal.iter().map(|n| (n - mean).powi(2)).sum::<f64>() / f64::from(count)).sqrt();
        assert!(mean.abs() < 0.06 && (deviation - 2.0).abs() < 0.05, "{mean} {deviation}");
        let steps: Vec<f64> = (0..count).map(|_| draws.graduation(Length::from_mm(1.0)).to_mm()).collect();
        assert!(steps.iter().all(|step| step.abs() <= 0.5));
        let spread = (steps.iter().map(|s| s * s).sum::<f64>() / f64::from(count)).sqrt();
        assert!((spread - 1.0 / 12.0_f64.sqrt()).abs() < 0.005, "{spread}");
    }

    #[test]
    fn the_same_seed_gives_the_same_numbers() {
        let run = |seed| {
            let mut draws = Draws::new(seed);
            [0; 5].map(|_| draws.normal(Length::from_mm(1.0)).to_mm())
        };
        assert_eq!(run(3), run(3));
        assert_ne!(run(3), run(4));
    }
}
