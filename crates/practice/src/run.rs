//! Many vehicles on several threads; what comes of it does not depend on how many.

use std::sync::atomic::{AtomicUsize, Ordering};

/// How many, on how many threads.
pub(crate) struct Run {
    pub(crate) vehicles: usize,
    pub(crate) threads: usize,
}

impl Run {
    /// Sends every vehicle through `one`, each counted into the sum of its thread; `progress` is told how many are done,
    /// from any thread.
    pub(crate) fn through<T: Default + Send>(
        &self,
        progress: &(dyn Fn(usize) + Sync),
        one: &(dyn Fn(u64, &mut T) + Sync),
        add: fn(&mut T, &T),
    ) -> T {
        let (next, done) = (AtomicUsize::new(0), AtomicUsize::new(0));
        let work = || {
            let mut sum = T::default();
            loop {
                let index = next.fetch_add(1, Ordering::Relaxed);
                if index >= self.vehicles {
                    return sum;
                }
                one(index as u64, &mut sum);
                progress(done.fetch_add(1, Ordering::Relaxed) + 1);
            }
        };
        std::thread::scope(|scope| {
            let threads: Vec<_> = (1..self.threads.max(1)).map(|_| scope.spawn(work)).collect();
            threads.into_iter().fold(work(), |mut sum, thread| {
                add(&mut sum, &thread.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic)));
                sum
            })
        })
    }
}

/// The seed of a vehicle: neighbours far apart.
pub(crate) const fn seed_of(seed: u64, index: u64) -> u64 {
    seed.wrapping_mul(0x9E37_79B9_7F4A_7C15).wrapping_add(index.wrapping_mul(0xD134_2543_DE82_EF95))
}
