//! How long what was given away lasts, and how long somebody waits who typed a wrong password.

use strum::{EnumString, IntoStaticStr, VariantArray};

const MINUTE_S: u32 = 60;
const HOUR_S: u32 = 60 * MINUTE_S;
const DAY_S: u32 = 24 * HOUR_S;

/// What lasts, and then ends by itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Lasting {
    /// An invitation into a kitchen.
    Invitation,
    /// A link to set a new password.
    PasswordLink,
    /// The code that a tablet shows.
    DeviceCode,
    /// A crew's link, after the batch was served.
    CrewAfterwards,
    /// A sign-in that nobody used.
    IdleSession,
    /// A sign-in, however it is used.
    Session,
    /// The tablet on the wall.
    DeviceSession,
    /// A program's token that is tried out.
    TokenMonth,
    /// A program's token for a season.
    TokenSeason,
    /// A program's token at its longest.
    TokenYear,
}

impl Lasting {
    /// How long a program's token may be asked to last, the shortest first.
    pub const OF_TOKENS: [Lasting; 3] = [
        Lasting::TokenMonth,
        Lasting::TokenSeason,
        Lasting::TokenYear,
    ];

    /// So many whole days.
    pub fn days(self) -> u32 {
        self.seconds() / DAY_S
    }
    /// So many seconds.
    pub fn seconds(self) -> u32 {
        match self {
            Lasting::Invitation => 7 * DAY_S,
            Lasting::PasswordLink => DAY_S,
            Lasting::DeviceCode => 10 * MINUTE_S,
            Lasting::CrewAfterwards => 12 * HOUR_S,
            // A dough lies cold for three days: who mixed it need not sign in again to bake it.
            Lasting::IdleSession => 7 * DAY_S,
            Lasting::Session => 30 * DAY_S,
            Lasting::DeviceSession => 180 * DAY_S,
            Lasting::TokenMonth => 30 * DAY_S,
            Lasting::TokenSeason => 90 * DAY_S,
            Lasting::TokenYear => 365 * DAY_S,
        }
    }
}

/// What tries are counted by.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Tries {
    /// At one name.
    OfName,
    /// From one address, behind which a whole crew may be.
    OfAddress,
}

/// So long after the last wrong try nothing is held against anybody, s.
const FORGIVEN_S: u32 = DAY_S;
/// Nobody waits longer, s.
const LONGEST_WAIT_S: u32 = 15 * MINUTE_S;

impl Tries {
    /// So many are free.
    fn free(self) -> u32 {
        match self {
            Tries::OfName => 5,
            Tries::OfAddress => 20,
        }
    }
}

/// How long one still waits who tried wrongly `tries` times, the last time `ago_s` seconds ago, s; doubled by each further try.
pub fn wait_s(of: Tries, tries: u32, ago_s: u32) -> u32 {
    if tries < of.free() || ago_s >= FORGIVEN_S {
        return 0;
    }
    let doubled = (tries - of.free()).min(10);
    let wait = (15 << doubled).min(LONGEST_WAIT_S);
    wait.saturating_sub(ago_s)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_wait_grows_with_every_try_and_is_bounded() {
        assert_eq!(wait_s(Tries::OfName, 4, 0), 0);
        assert_eq!(wait_s(Tries::OfName, 5, 0), 15);
        assert_eq!(wait_s(Tries::OfName, 6, 10), 20);
        assert_eq!(wait_s(Tries::OfName, 6, 30), 0);
        assert_eq!(wait_s(Tries::OfName, 4_000_000_000, 0), LONGEST_WAIT_S);
        assert_eq!(wait_s(Tries::OfName, 4_000_000_000, FORGIVEN_S), 0);
        assert_eq!(wait_s(Tries::OfAddress, 19, 0), 0);
        let mut before = 0;
        for tries in 0..40 {
            let wait = wait_s(Tries::OfAddress, tries, 0);
            assert!(wait >= before);
            before = wait;
        }
    }
}
