//! Work that is called off when nobody waits for it any more.
//!
//! Whoever asks hands over a flag; loops that can be long pass a [`checkpoint`], which unwinds out of the whole
//! computation once the flag is set. No clock is read here: who sets the flag, and when, is the asker's affair.

use std::cell::RefCell;
use std::panic::{AssertUnwindSafe, catch_unwind, resume_unwind};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

/// The computation was called off before it had an answer.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CalledOff;

thread_local! {
    static FLAG: RefCell<Option<Arc<AtomicBool>>> = const { RefCell::new(None) };
}

/// Takes the flag away again however the work ends.
struct Listening(Option<Arc<AtomicBool>>);

impl Drop for Listening {
    fn drop(&mut self) {
        FLAG.with_borrow_mut(|flag| *flag = self.0.take());
    }
}

/// Runs `work` on this thread until it is done or `flag` is set.
///
/// # Errors
/// [`CalledOff`], once a [`checkpoint`] saw the flag.
pub fn until_called_off<T>(flag: &Arc<AtomicBool>, work: impl FnOnce() -> T) -> Result<T, CalledOff> {
    let before = FLAG.with_borrow_mut(|own| own.replace(Arc::clone(flag)));
    let _listening = Listening(before);
    match catch_unwind(AssertUnwindSafe(work)) {
        Ok(value) => Ok(value),
        Err(thrown) if thrown.is::<CalledOff>() => Err(CalledOff),
        Err(thrown) => resume_unwind(thrown),
    }
}

/// Goes on, or leaves the computation for good when it was called off. Costs a few nanoseconds.
#[inline]
pub fn checkpoint() {
    let called_off = FLAG.with_borrow(|flag| flag.as_ref().is_some_and(|flag| flag.load(Ordering::Relaxed)));
    if called_off {
        resume_unwind(Box::new(CalledOff));
    }
}

/// Watches a search for as long as nobody called it off.
pub fn patient(_: plan::search::Progress) -> bool {
    checkpoint();
    true
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn work_goes_on_until_the_flag_is_set_and_then_stops_at_the_next_checkpoint() {
        let flag = Arc::new(AtomicBool::new(false));
        let outcome = until_called_off(&flag, || {
            for round in 0.. {
                if round == 3 {
                    flag.store(true, Ordering::Relaxed);
                }
                checkpoint();
                assert!(round < 3, "it went on");
            }
        });
        assert_eq!(outcome, Err(CalledOff));
        // Nobody listens afterwards: a set flag stops nothing.
        checkpoint();
        assert_eq!(until_called_off(&Arc::new(AtomicBool::new(false)), || 7), Ok(7));
    }
}
