//! The pose solver: the axle as a rigid body held by links.
//!
//! Given heave z and roll φ it finds x, y, pitch ψ and yaw ω so that every link keeps its
//! made length. Four independent constraints are met exactly; more are met in the sense of
//! least squares, and what is left over is bind. Gauss–Newton with the analytic Jacobian,
//! damped (Levenberg–Marquardt) where a plain step does not help.

use std::fmt;

use glam::DVec3;

use super::point::{AxlePoint, BodyPoint, Placing, Pose, RollMotion};
use crate::measure::{Angle, Length};

/// Turns are weighed against shifts as if they acted at this arm, in millimetres.
const TURN_SCALE: f64 = 500.0;
/// A motion whose singular value is below this share of the largest is loose.
const LOOSE: f64 = 1e-4;
/// Residuals below this are met, in millimetres.
const MET: f64 = 1e-10;
/// What four constraints must come down to, in millimetres.
const EXACT: f64 = 1e-9;
/// A least-squares solution is found once a step is shorter than this, in millimetres.
const STILL: f64 = 1e-7;
/// Most constraints of one axle: six links, a wind-up and four held motions.
pub const MOST_ROWS: usize = 12;
const MOST_STEPS: usize = 60;

/// A link of made length between a point of the body and a point of the axle.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Link {
    /// Its end on the body.
    pub body: BodyPoint,
    /// Its end on the axle.
    pub axle: AxlePoint,
    /// Its length, centre to centre.
    pub made: Length,
    /// Stiffness along it, N/mm, where it is known.
    pub stiffness: Option<f64>,
}

/// Two radius arms, rigid on the axle but for the bushes at their wrists: the wind-up of
/// one is the other's turned round.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct WindUp {
    /// Index of the left arm among the links.
    pub left: usize,
    /// Index of the right arm.
    pub right: usize,
}

/// Motions held at nought, as leaf springs hold them.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Held {
    /// Fore and aft.
    pub x: bool,
    /// Sideways.
    pub y: bool,
    /// Turning about the tube.
    pub pitch: bool,
    /// Steering.
    pub yaw: bool,
}

/// What holds an axle.
#[derive(Clone, Debug, PartialEq)]
pub struct Suspension {
    axle_height: Length,
    links: Vec<Link>,
    wind_up: Option<WindUp>,
    held: Held,
    /// Wind-up angles of the arms at the pose they were fitted in.
    rest: [f64; 2],
    weighted: bool,
}

/// A motion of the axle that constraints take away.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Motion {
    /// Fore and aft.
    ForeAft,
    /// Sideways.
    Sideways,
    /// Turning about the axle tube.
    Pitch,
    /// Steering to one side.
    Yaw,
}

impl fmt::Display for Motion {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::ForeAft => "fore and aft",
            Self::Sideways => "sideways",
            Self::Pitch => "from rotating about its own tube",
            Self::Yaw => "from steering to one side",
        })
    }
}

/// Why there is no pose.
#[derive(Clone, Copy, Debug, PartialEq, thiserror::Error)]
pub enum PoseFault {
    /// Nothing holds this motion.
    #[error("nothing holds the axle {0}")]
    Loose(Motion),
    /// The links do not reach: no place meets them all.
    #[error("link {link} is {missing_mm:.1} mm short of reaching")]
    OutOfReach {
        /// Index of the link that misses most.
        link: usize,
        /// By how much, in millimetres.
        missing_mm: f64,
    },
}

/// A solved pose.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Solved {
    /// The pose.
    pub pose: Pose,
    /// The largest stretch of a link, without its sign. Nought where four constraints are met.
    pub bind: Length,
    /// The link that is stretched or pressed most.
    pub bind_link: usize,
    /// dx, dy (mm), dψ and dω to the radian of roll at fixed heave.
    per_roll: [f64; 4],
    /// dy/dφ at fixed heave, mm/rad: height of the roll centre above the axle centre.
    pub sideways_per_roll: f64,
    /// Wind-up ε of the radius arms' bushes, left and right; nought without.
    pub wind_up: [Angle; 2],
    q: [f64; 4],
}

impl Solved {
    /// Where to start looking for a pose nearby.
    #[must_use]
    pub const fn start(&self) -> Start {
        Start(self.q)
    }

    /// How the axle moves while it rolls on from here at the same heave: dq/dφ = −J⁻¹·∂r/∂φ, the pose's
    /// constraints kept. `placing` is this pose's.
    #[must_use]
    pub fn roll_motion(&self, placing: &Placing) -> RollMotion {
        let [x, y, pitch, yaw] = self.per_roll;
        RollMotion {
            shift: DVec3::new(x, y, 0.0),
            turn: placing.roll_axis + placing.pitch_axis * pitch + DVec3::Z * yaw,
        }
    }

    /// Where to start for the pose at a share of the way from this one to `other`.
    #[must_use]
    pub fn towards(&self, other: &Self, share: f64) -> Start {
        Start(std::array::from_fn(|i| self.q[i] + share * (other.q[i] - self.q[i])))
    }
}

/// A first guess of x, y, pitch and yaw.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Start([f64; 4]);

impl Start {
    /// With so many times another added.
    pub(super) fn and(self, factor: f64, other: Self) -> Self {
        Self(std::array::from_fn(|i| self.0[i] + factor * other.0[i]))
    }
}

/// One constraint at one place: its residual and how it changes.
#[derive(Clone, Copy, Default)]
struct Row {
    residual: f64,
    /// Along x, y, scaled pitch and scaled yaw.
    by: [f64; 4],
    by_roll: f64,
    weight: f64,
}

/// Every constraint at one place.
#[derive(Default)]
struct Rows {
    all: [Row; MOST_ROWS],
    count: usize,
    links: usize,
    /// Wind-up of the radius arms' bushes, left and right, in radians; nought without.
    wind_up: [f64; 2],
    placing: Placing,
}

impl Rows {
    fn push(&mut self, row: Row) {
        self.all[self.count] = row;
        self.count += 1;
    }

    fn cost(&self) -> f64 {
        self.all[..self.count].iter().map(|row| row.weight * row.residual * row.residual).sum()
    }

    fn worst(&self) -> f64 {
        self.all[..self.count].iter().fold(0.0, |worst, row| worst.max(row.residual.abs()))
    }

    /// The link with the largest residual.
    fn worst_link(&self) -> (usize, f64) {
        self.all[..self.links].iter().enumerate().fold((0, 0.0_f64), |(at, worst), (index, row)| {
            if row.residual.abs() > worst.abs() { (index, row.residual) } else { (at, worst) }
        })
    }

    /// Normal matrix, of which the upper half is mirrored down, and right side −Jᵀ·W·`side`.
    fn normal(&self, side: impl Fn(&Row) -> f64) -> ([[f64; 4]; 4], [f64; 4]) {
        let mut matrix = [[0.0; 4]; 4];
        let mut right = [0.0; 4];
        for row in &self.all[..self.count] {
            let weighed = row.by.map(|by| row.weight * by);
            let wanted = side(row);
            for (i, line) in matrix.iter_mut().enumerate() {
                right[i] -= weighed[i] * wanted;
                for (value, by) in line.iter_mut().zip(row.by).skip(i) {
                    *value += weighed[i] * by;
                }
            }
        }
        (std::array::from_fn(|i| std::array::from_fn(|j| matrix[i.min(j)][i.max(j)])), right)
    }

    /// Newton's step for four rows, Gauss–Newton's for more, damped by λ.
    fn step(&self, side: impl Fn(&Row) -> f64, lambda: f64) -> Option<[f64; 4]> {
        if self.count == 4 && lambda == 0.0 {
            let matrix = std::array::from_fn(|i| self.all[i].by);
            let right = std::array::from_fn(|i| -side(&self.all[i]));
            return eliminate(matrix, right);
        }
        let (mut matrix, right) = self.normal(side);
        for (i, row) in matrix.iter_mut().enumerate() {
            row[i] += lambda;
        }
        eliminate_symmetric(&matrix, right)
    }
}

/// Below this a pivot has vanished.
const NO_PIVOT: f64 = 1e-12;

/// Solves a symmetric matrix that is nowhere negative by its factors L·D·Lᵀ, which needs no pivoting; `None` where a
/// pivot vanishes. The lower half is read.
fn eliminate_symmetric(matrix: &[[f64; 4]; 4], mut right: [f64; 4]) -> Option<[f64; 4]> {
    // Below the diagonal L·D, and the reciprocals of D.
    let mut scaled = *matrix;
    let mut per = [0.0; 4];
    for i in 0..4 {
        for j in 0..i {
            for k in 0..j {
                scaled[i][j] -= scaled[i][k] * per[k] * scaled[j][k];
            }
            scaled[i][i] -= scaled[i][j] * per[j] * scaled[i][j];
        }
        if scaled[i][i] < NO_PIVOT {
            return None;
        }
        per[i] = 1.0 / scaled[i][i];
        for j in 0..i {
            right[i] -= scaled[i][j] * per[j] * right[j];
        }
    }
    for i in (0..4).rev() {
        right[i] *= per[i];
        for j in i + 1..4 {
            right[i] -= scaled[j][i] * per[i] * right[j];
        }
    }
    Some(right)
}

/// Gaussian elimination with partial pivoting; `None` where a pivot vanishes.
fn eliminate(mut matrix: [[f64; 4]; 4], mut right: [f64; 4]) -> Option<[f64; 4]> {
    let mut per = [0.0; 4];
    for column in 0..4 {
        let mut pivot = column;
        for row in column + 1..4 {
            if matrix[row][column].abs() > matrix[pivot][column].abs() {
                pivot = row;
            }
        }
        if matrix[pivot][column].abs() < NO_PIVOT {
            return None;
        }
        matrix.swap(column, pivot);
        right.swap(column, pivot);
        let head = matrix[column];
        per[column] = 1.0 / head[column];
        for row in column + 1..4 {
            let factor = matrix[row][column] * per[column];
            for (value, above) in matrix[row].iter_mut().zip(head).skip(column + 1) {
                *value -= factor * above;
            }
            right[row] -= factor * right[column];
        }
    }
    for row in (0..4).rev() {
        for column in row + 1..4 {
            right[row] -= matrix[row][column] * right[column];
        }
        right[row] *= per[row];
    }
    Some(right)
}

/// Eigenvalues and eigenvectors (columns) of a symmetric matrix by Jacobi's rotations.
fn eigen(mut matrix: [[f64; 4]; 4]) -> ([f64; 4], [[f64; 4]; 4]) {
    let mut vectors: [[f64; 4]; 4] =
        std::array::from_fn(|i| std::array::from_fn(|j| f64::from(u8::from(i == j))));
    let size = matrix.iter().flatten().fold(0.0_f64, |most, value| most.max(value.abs()));
    for _ in 0..30 {
        let mut still = true;
        for p in 0..3 {
            for q in p + 1..4 {
                if matrix[p][q].abs() <= size * 1e-18 {
                    continue;
                }
                still = false;
                let theta = (matrix[q][q] - matrix[p][p]) / (2.0 * matrix[p][q]);
                let t = theta.signum() / (theta.abs() + theta.hypot(1.0));
                let c = 1.0 / t.hypot(1.0);
                let s = t * c;
                for row in &mut matrix {
                    let (a, b) = (row[p], row[q]);
                    row[p] = c * a - s * b;
                    row[q] = s * a + c * b;
                }
                let (above, below) = (matrix[p], matrix[q]);
                matrix[p] = std::array::from_fn(|k| c * above[k] - s * below[k]);
                matrix[q] = std::array::from_fn(|k| s * above[k] + c * below[k]);
                for vector in &mut vectors {
                    let (a, b) = (vector[p], vector[q]);
                    vector[p] = c * a - s * b;
                    vector[q] = s * a + c * b;
                }
            }
        }
        if still {
            break;
        }
    }
    (std::array::from_fn(|i| matrix[i][i]), vectors)
}

impl Suspension {
    /// An axle whose centre stands at `axle_height` above the ground at ride height.
    ///
    /// `links` holds at most six; `wind_up` names two of them where they are radius arms.
    #[must_use]
    pub fn new(axle_height: Length, links: Vec<Link>, wind_up: Option<WindUp>, held: Held) -> Self {
        // Six links, a wind-up and four held motions fill the rows.
        let links: Vec<Link> = links.into_iter().take(MOST_ROWS - 5).collect();
        let weighted = links.iter().all(|link| link.stiffness.is_some_and(|k| k > 0.0)) && wind_up.is_none();
        let mut suspension = Self { axle_height, links, wind_up, held, rest: [0.0; 2], weighted };
        suspension.fit(&Pose::RIDE, false);
        suspension
    }

    /// The links, in the order they were given.
    #[must_use]
    pub fn links(&self) -> &[Link] {
        &self.links
    }

    /// Height of the axle centre above the ground at ride height.
    #[must_use]
    pub const fn axle_height(&self) -> Length {
        self.axle_height
    }

    /// How many constraints there are; four locate the axle.
    #[must_use]
    pub fn constraints(&self) -> usize {
        self.rows(&[0.0; 4], 0.0, 0.0).count
    }

    /// Takes a pose as the one everything was fitted in: bushes are at rest there and,
    /// where `lengths` says so, every link has the length it needs there.
    pub fn fit(&mut self, pose: &Pose, lengths: bool) {
        let placing = Placing::of(pose, self.axle_height);
        if lengths {
            for link in &mut self.links {
                link.made = Length::from_mm((placing.place(link.axle) - link.body).length());
            }
        }
        self.rest = [0.0; 2];
        if let Some(WindUp { left, right }) = self.wind_up {
            self.rest = [left, right].map(|arm| self.arm_turn(arm, 0.0, &placing).0);
        }
    }

    /// The same axle with one link made longer or shorter.
    #[must_use]
    pub fn with_link(&self, index: usize, link: Link) -> Self {
        let mut changed = self.clone();
        changed.links[index] = link;
        changed
    }

    /// The turn of an arm from `rest`, the pitch it was fitted with, as seen from the axle, about the axle's y; radians,
    /// + as a pose's pitch. With it its change by x and y, per mm, and by pitch, yaw and roll, per radian.
    fn arm_turn(&self, index: usize, rest: f64, placing: &Placing) -> (f64, [f64; 5]) {
        let link = &self.links[index];
        let wrist = placing.arm(link.axle);
        let out = placing.centre + placing.shift + wrist - link.body.vector();
        let u = placing.turn.transpose() * out;
        // About +y a forward direction goes down: the pitch is atan2(−z, x), and this its gradient in body axes.
        let gradient = placing.turn * DVec3::new(u.z, 0.0, -u.x) / (u.x * u.x + u.z * u.z);
        // Seen from the axle a turn of the axle moves the body's end the other way; the wrist itself stays:
        // gradient · (axis × (wrist − out)) = axis · ((wrist − out) × gradient)
        let turning = (wrist - out).cross(gradient);
        let by = [
            gradient.x,
            gradient.y,
            placing.pitch_axis.dot(turning),
            turning.z,
            placing.roll_axis.dot(turning),
        ];
        (turn_between(rest, (-u.z).atan2(u.x)), by)
    }

    fn placing(&self, q: &[f64; 4], z: f64, roll: f64) -> Placing {
        let shift = DVec3::new(q[0], q[1], z);
        Placing::from_parts(self.axle_height.to_mm(), shift, roll, q[2] / TURN_SCALE, q[3] / TURN_SCALE)
    }

    fn rows(&self, q: &[f64; 4], z: f64, roll: f64) -> Rows {
        let mut rows = Rows::default();
        self.write_rows(&mut rows, q, z, roll);
        rows
    }

    /// As [`Suspension::rows`], over what was there.
    fn write_rows(&self, rows: &mut Rows, q: &[f64; 4], z: f64, roll: f64) {
        let placing = self.placing(q, z, roll);
        (rows.count, rows.links, rows.placing) = (0, self.links.len(), placing);
        for link in &self.links {
            let arm = placing.arm(link.axle);
            let along = placing.centre + placing.shift + arm - link.body.vector();
            let length = along.length();
            let n = along / length;
            // n · (axis × arm) = axis · (arm × n)
            let turning = arm.cross(n);
            rows.push(Row {
                residual: length - link.made.to_mm(),
                by: [n.x, n.y, placing.pitch_axis.dot(turning) / TURN_SCALE, turning.z / TURN_SCALE],
                by_roll: placing.roll_axis.dot(turning),
                weight: if self.weighted { link.stiffness.unwrap_or(1.0) } else { 1.0 },
            });
        }
        if let Some(WindUp { left, right }) = self.wind_up {
            let (a, by_a) = self.arm_turn(left, self.rest[0], &placing);
            let (b, by_b) = self.arm_turn(right, self.rest[1], &placing);
            let by = |i: usize| TURN_SCALE * (by_a[i] + by_b[i]);
            rows.wind_up = [a, b];
            rows.push(Row {
                residual: TURN_SCALE * (a + b),
                by: [by(0), by(1), by(2) / TURN_SCALE, by(3) / TURN_SCALE],
                by_roll: by(4),
                weight: 1.0,
            });
        }
        let held = [self.held.x, self.held.y, self.held.pitch, self.held.yaw];
        for (index, _) in held.iter().enumerate().filter(|(_, held)| **held) {
            let mut by = [0.0; 4];
            by[index] = 1.0;
            rows.push(Row { residual: q[index], by, by_roll: 0.0, weight: 1.0 });
        }
        // What is held is held whatever the links would have: they settle among the other motions.
        let located = rows.count - held.iter().filter(|held| **held).count();
        for row in &mut rows.all[..located] {
            for (by, held) in row.by.iter_mut().zip(held) {
                if held {
                    *by = 0.0;
                }
            }
        }
    }

    /// The motion nothing holds, if there is one: by the rank of the Jacobian, not by a count.
    #[must_use]
    pub fn loose(&self, at: Start, z: Length, roll: Angle) -> Option<Motion> {
        let rows = self.rows(&at.0, z.to_mm(), roll.to_radians());
        let (matrix, _) = rows.normal(|_| 0.0);
        let (values, vectors) = eigen(matrix);
        let most = values.iter().copied().fold(0.0, f64::max);
        let least = (0..4).min_by(|a, b| values[*a].total_cmp(&values[*b])).unwrap_or(0);
        // Values are squares of singular values.
        if most > 0.0 && values[least] >= LOOSE * LOOSE * most {
            return None;
        }
        let largest =
            (0..4).max_by(|a, b| vectors[*a][least].abs().total_cmp(&vectors[*b][least].abs())).unwrap_or(0);
        Some([Motion::ForeAft, Motion::Sideways, Motion::Pitch, Motion::Yaw][largest])
    }

    /// The pose at heave `z` and roll, looked for from `start`.
    ///
    /// # Errors
    /// Where a motion is loose or the links do not reach.
    pub fn solve(&self, z: Length, roll: Angle, start: Start) -> Result<Solved, PoseFault> {
        self.solve_placed(z, roll, start).map(|(solved, _)| solved)
    }

    /// As [`Suspension::solve`], with the pose made ready for placing points.
    pub(super) fn solve_placed(
        &self,
        z: Length,
        roll: Angle,
        start: Start,
    ) -> Result<(Solved, Placing), PoseFault> {
        let (z_mm, phi) = (z.to_mm(), roll.to_radians());
        let mut q = start.0;
        let (mut here, mut there) = (self.rows(&q, z_mm, phi), Rows::default());
        // What is tried is written beside where it stands, and taken by changing places.
        let (mut rows, mut trial_rows) = (&mut here, &mut there);
        let mut cost = rows.cost();
        let mut lambda = 0.0;
        let exact = rows.count == 4;
        let mut settled = false;
        for _ in 0..MOST_STEPS {
            if rows.worst() < MET {
                settled = true;
                break;
            }
            let Some(step) = rows.step(|row| row.residual, lambda) else {
                if lambda == 0.0 {
                    lambda = 1e-6;
                    continue;
                }
                break;
            };
            let trial: [f64; 4] = std::array::from_fn(|i| q[i] + step[i]);
            self.write_rows(trial_rows, &trial, z_mm, phi);
            let trial_cost = trial_rows.cost();
            let length = step.iter().map(|s| s * s).sum::<f64>().sqrt();
            if trial_cost <= cost || length < STILL {
                q = trial;
                std::mem::swap(&mut rows, &mut trial_rows);
                cost = trial_cost.min(cost);
                lambda = if lambda < 1e-5 { 0.0 } else { lambda * 0.1 };
                if length < STILL {
                    settled = true;
                    break;
                }
            } else {
                lambda = if lambda == 0.0 { 1e-4 } else { lambda * 10.0 };
                if lambda > 1e9 {
                    break;
                }
            }
        }
        let (link, miss) = rows.worst_link();
        if !settled || (exact && rows.worst() > EXACT) || !cost.is_finite() {
            // Stretched to the full, a link holds nothing along its arc: that is reach, not looseness.
            let loose = self.loose(Start(q), z, roll).filter(|_| rows.worst() < EXACT);
            return Err(loose.map_or(PoseFault::OutOfReach { link, missing_mm: miss }, PoseFault::Loose));
        }
        let with_roll = rows.step(|row| row.by_roll, 0.0).unwrap_or_default();
        let pose = Pose {
            x: Length::from_mm(q[0]),
            y: Length::from_mm(q[1]),
            z,
            roll,
            pitch: Angle::from_radians(q[2] / TURN_SCALE),
            yaw: Angle::from_radians(q[3] / TURN_SCALE),
        };
        let solved = Solved {
            pose,
            bind: Length::from_mm(miss.abs()),
            bind_link: link,
            per_roll: [with_roll[0], with_roll[1], with_roll[2] / TURN_SCALE, with_roll[3] / TURN_SCALE],
            sideways_per_roll: with_roll[1],
            wind_up: rows.wind_up.map(Angle::from_radians),
            q,
        };
        Ok((solved, rows.placing))
    }

    /// The pose at ride height or another heave with the axle held `y` to the left by hand
    /// and one link (the bar) taken out: where the others put it, looked for from `start`.
    ///
    /// # Errors
    /// As [`Suspension::solve`].
    pub fn held_sideways(
        &self,
        y: Length,
        z: Length,
        without: Option<usize>,
        start: Start,
    ) -> Result<Solved, PoseFault> {
        let mut freed = self.clone();
        // A link far away on the y axis would hold y only nearly; holding it is exact.
        if let Some(bar) = without {
            freed.links.remove(bar);
            if let Some(WindUp { left, right }) = &mut freed.wind_up {
                *left -= usize::from(*left > bar);
                *right -= usize::from(*right > bar);
            }
        }
        freed.held.y = true;
        // Held at y, not at nought: the body is moved over instead.
        for link in &mut freed.links {
            link.body = link.body.moved(DVec3::new(0.0, -y.to_mm(), 0.0));
        }
        let [x, _, pitch, yaw] = start.0;
        let mut solved = freed.solve(z, Angle::ZERO, Start([x, 0.0, pitch, yaw]))?;
        solved.pose.y = y;
        solved.q[1] = y.to_mm();
        Ok(solved)
    }

    /// The place of a link's axle end in a pose.
    #[must_use]
    pub fn axle_end(&self, link: usize, pose: &Pose) -> BodyPoint {
        pose.place(self.axle_height, self.links[link].axle)
    }
}

/// The turn from one angle to another, the short way round.
fn turn_between(from: f64, to: f64) -> f64 {
    let turn = to - from;
    turn - (turn / std::f64::consts::TAU).round() * std::f64::consts::TAU
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// Three springs in a row between walls, k each, and one far weaker: worked by hand from the last to the first.
    #[test]
    fn a_chain_of_springs_by_hand() {
        let matrix =
            [[2.0, -1.0, 0.0, 0.0], [-1.0, 2.0, -1.0, 0.0], [0.0, -1.0, 2.0, 0.0], [0.0, 0.0, 0.0, 0.5]];
        // Pulled in the middle by 1: 1/2, 1, 1/2; the last by 1 alone: 2.
        let moved = eliminate_symmetric(&matrix, [0.0, 1.0, 0.0, 1.0]).unwrap();
        for (found, expected) in moved.into_iter().zip([0.5, 1.0, 0.5, 2.0]) {
            assert!((found - expected).abs() < 1e-12, "{moved:?}");
        }
        // Two that move alike hold nothing against each other.
        let loose = [[1.0, 1.0, 0.0, 0.0], [1.0, 1.0, 0.0, 0.0], [0.0, 0.0, 1.0, 0.0], [0.0, 0.0, 0.0, 1.0]];
        assert_eq!(eliminate_symmetric(&loose, [1.0; 4]), None);
    }

    proptest! {
        /// What it finds, put in again, gives the right side; so does elimination with pivots.
        #[test]
        fn it_solves_what_rows_ask(
            rows in prop::collection::vec(prop::array::uniform4(-1.0..1.0_f64), 5..9),
            right in prop::array::uniform4(-10.0..10.0_f64),
        ) {
            let matrix: [[f64; 4]; 4] =
                std::array::from_fn(|i| std::array::from_fn(|j| rows.iter().map(|row| row[i] * row[j]).sum()));
            let (values, _) = eigen(matrix);
            let (least, most) = values.iter().fold((f64::INFINITY, 0.0_f64), |(a, b), v| (a.min(*v), b.max(*v)));
            prop_assume!(least > 1e-4 * most);
            let found = eliminate_symmetric(&matrix, right).unwrap();
            let pivoted = eliminate(matrix, right).unwrap();
            for (line, wanted) in matrix.iter().zip(right) {
                let again: f64 = line.iter().zip(found).map(|(value, found)| value * found).sum();
                prop_assert!((again - wanted).abs() < 1e-7, "{again} {wanted}");
            }
            for (found, pivoted) in found.into_iter().zip(pivoted) {
                prop_assert!((found - pivoted).abs() < 1e-6 * found.abs().max(1.0));
            }
        }
    }
}
