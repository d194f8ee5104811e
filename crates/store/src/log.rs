//! The log: a line a batch, found by its words, its family, what went in, when it was made.

use crate::{Store, StoreError};
use pastry::log::{LogLine, sought};
use sqlx::{QueryBuilder, Row, Sqlite, SqliteConnection};

/// Most lines of one page.
pub const MOST: u32 = 200;
/// Batches made within the same second, each with a number of its own.
const A_SECOND: i64 = 4096;

/// What is looked for in the log. What is none is not asked for.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct LogAsk {
    /// Words, each or one that begins so.
    pub words: String,
    /// Key of a family.
    pub family: Option<String>,
    /// A job: drip, coat …
    pub job: Option<String>,
    /// Key of an ingredient.
    pub ingredient: Option<String>,
    /// A lot.
    pub lot: Option<String>,
    /// Key of a formula.
    pub component: Option<String>,
    /// Room from and to, °C.
    pub room_c: (Option<f64>, Option<f64>),
    /// How it came out, by its word.
    pub came: Option<String>,
    /// Only what did not come out as it should.
    pub wrong: bool,
    /// Only those that were tested.
    pub tested: bool,
    /// Made from a second on, and before another, since 1970.
    pub seconds: (Option<i64>, Option<i64>),
    /// Only lines older than this one.
    pub behind: Option<i64>,
    /// How many.
    pub most: u32,
}

/// Lines of the log, the newest first.
#[derive(Debug, Clone, PartialEq)]
pub struct LogFound {
    /// The lines.
    pub lines: Vec<LogLine>,
    /// Behind which more are to be had; none when these are all.
    pub more_behind: Option<i64>,
}

/// What stands in the log of something, and how often.
#[derive(Debug, Clone, PartialEq)]
pub struct LogCount {
    /// What.
    pub thing: String,
    /// In how many batches.
    pub batches: i64,
}

impl Store {
    /// Keys of batches whose line is behind, so many at most.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn log_behind(&self, most: u32) -> Result<Vec<String>, StoreError> {
        let sql = "SELECT key FROM log_behind WHERE unread = 0 LIMIT ?";
        Ok(sqlx::query_scalar(sql).bind(most).fetch_all(&self.readers).await?)
    }

    /// How many lines are behind, and how many batches cannot be read.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn log_behind_count(&self) -> Result<(i64, i64), StoreError> {
        let sql = "SELECT count(*) - coalesce(sum(unread), 0), coalesce(sum(unread), 0) FROM log_behind";
        Ok(sqlx::query_as(sql).fetch_one(&self.readers).await?)
    }

    /// Notes that a batch cannot be read: its line stays as it was, and how many there are is told.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn log_unread(&self, key: &str) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        sqlx::query("UPDATE log_behind SET unread = 1 WHERE key = ?")
            .bind(key)
            .execute(writing.connection())
            .await?;
        writing.commit_quietly().await
    }

    /// Writes lines of the log, each as it is after so many events. One to which more happened since stays behind.
    ///
    /// # Arguments
    /// * `lines`: with what each is found by, and the place of its last event.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn write_log(&self, lines: &[(LogLine, String, i64)]) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        for (line, words, place) in lines {
            if let Err(why) = write_line(writing.connection(), line, words, *place).await {
                return Err(writing.give_up(why).await);
            }
        }
        // Nothing was said by anybody: it is worked out from what stands in the audit already.
        writing.commit_quietly().await
    }

    /// Looks for batches, the newest first.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn log(&self, ask: &LogAsk) -> Result<LogFound, StoreError> {
        let most = ask.most.clamp(1, MOST);
        let words = sought(&ask.words);
        if words.is_none() && ask.words.chars().any(|own| !own.is_whitespace()) {
            // Signs alone are in no batch.
            return Ok(LogFound { lines: Vec::new(), more_behind: None });
        }
        // What is rarest goes first, and each walks from the newest, so nothing is sorted.
        let of = [("lot", &ask.lot), ("ingredient", &ask.ingredient)];
        let first = of.into_iter().find(|own| words.is_none() && own.1.is_some());
        let mut sql: QueryBuilder<Sqlite> = QueryBuilder::new("SELECT l.id, n.line FROM ");
        let row = match (&words, first) {
            (Some(words), _) => {
                sql.push("log_words w CROSS JOIN log l ON l.id = w.rowid JOIN log_lines n ON n.id = l.id");
                sql.push(" WHERE w.log_words MATCH ").push_bind(words);
                "w.rowid"
            }
            (None, Some((kind, thing))) => {
                sql.push("log_of o CROSS JOIN log l ON l.id = o.id JOIN log_lines n ON n.id = l.id");
                sql.push(" WHERE o.kind = ").push_bind(kind);
                sql.push(" AND o.thing = ").push_bind(thing.clone().unwrap_or_default());
                "o.id"
            }
            (None, None) => {
                sql.push("log l JOIN log_lines n ON n.id = l.id WHERE 1");
                "l.id"
            }
        };
        for (column, wanted) in
            [("family", &ask.family), ("job", &ask.job), ("component", &ask.component), ("came", &ask.came)]
        {
            if let Some(wanted) = wanted {
                sql.push(" AND l.").push(column).push(" = ").push_bind(wanted.clone());
            }
        }
        for (kind, wanted) in of.into_iter().filter(|own| first != Some(*own)) {
            if let Some(wanted) = wanted {
                sql.push(" AND EXISTS (SELECT 1 FROM log_of e WHERE e.kind = ").push_bind(kind);
                sql.push(" AND e.thing = ").push_bind(wanted.clone()).push(" AND e.id = l.id)");
            }
        }
        if ask.wrong {
            sql.push(" AND l.came <> 'good'");
        }
        if ask.tested {
            sql.push(" AND l.tests > 0");
        }
        if let Some(from) = ask.room_c.0 {
            sql.push(" AND l.room_c >= ").push_bind(from);
        }
        if let Some(to) = ask.room_c.1 {
            sql.push(" AND l.room_c <= ").push_bind(to);
        }
        let id = |seconds: i64| seconds.saturating_mul(A_SECOND);
        for (bound, wanted) in
            [(">=", ask.seconds.0.map(id)), ("<", ask.seconds.1.map(id)), ("<", ask.behind)]
        {
            if let Some(wanted) = wanted {
                sql.push(format!(" AND {row} {bound} ")).push_bind(wanted);
            }
        }
        sql.push(format!(" ORDER BY {row} DESC LIMIT ")).push_bind(most + 1);
        let rows = sql.build().fetch_all(&self.readers).await?;
        let mut found: Vec<(i64, LogLine)> = Vec::with_capacity(rows.len());
        for row in &rows {
            found.push((row.try_get("id")?, serde_json::from_str(row.try_get("line")?)?));
        }
        let more = found.len() > most as usize;
        found.truncate(most as usize);
        let more_behind = found.last().filter(|_| more).map(|own| own.0);
        Ok(LogFound { lines: found.into_iter().map(|own| own.1).collect(), more_behind })
    }

    /// How many batches there are, how many of them did not come out as they should, how many were tested.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn log_totals(&self) -> Result<(i64, i64, i64), StoreError> {
        let sql = "SELECT count(*), count(*) FILTER (WHERE came <> 'good'), count(*) FILTER (WHERE tests > 0) FROM log";
        Ok(sqlx::query_as(sql).fetch_one(&self.readers).await?)
    }

    /// What batches of the log are of, and how many of each: families, jobs, ingredients or lots.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn log_counts(&self, of: LogOf) -> Result<Vec<LogCount>, StoreError> {
        let sql = match of {
            LogOf::Family => {
                "SELECT family AS thing, count(*) AS batches FROM log GROUP BY family ORDER BY 2 DESC"
            }
            LogOf::Job => "SELECT job AS thing, count(*) AS batches FROM log GROUP BY job ORDER BY 2 DESC",
            LogOf::Ingredient => {
                "SELECT thing, count(*) AS batches FROM log_of WHERE kind = 'ingredient' GROUP BY thing ORDER BY 2 DESC LIMIT 400"
            }
            LogOf::Component => {
                "SELECT component AS thing, count(*) AS batches FROM log WHERE component IS NOT NULL
                 GROUP BY component ORDER BY 2 DESC, 1"
            }
            LogOf::Lot => {
                "SELECT thing, count(*) AS batches FROM log_of WHERE kind = 'lot' GROUP BY thing ORDER BY max(id) DESC LIMIT 400"
            }
        };
        let rows = sqlx::query(sql).fetch_all(&self.readers).await?;
        rows.iter()
            .map(|row| Ok(LogCount { thing: row.try_get("thing")?, batches: row.try_get("batches")? }))
            .collect()
    }
}

/// Minutes of so many of the last batches are looked at.
const MINUTES_OF: i64 = 2000;

impl Store {
    /// How long steps took in the last batches, times what was planned: school, step, times, the newest first.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn minutes(&self) -> Result<Vec<(String, String, f64)>, StoreError> {
        let sql = "SELECT school, step, times FROM log_minutes
            WHERE id >= coalesce((SELECT id FROM log ORDER BY id DESC LIMIT 1 OFFSET ?), 0) ORDER BY id DESC, school, step";
        Ok(sqlx::query_as(sql).bind(MINUTES_OF - 1).fetch_all(&self.readers).await?)
    }
}

/// What batches of the log can be counted by.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LogOf {
    /// Families.
    Family,
    /// Jobs.
    Job,
    /// Ingredients.
    Ingredient,
    /// Formulas of the library.
    Component,
    /// Lots.
    Lot,
}

async fn write_line(
    connection: &mut SqliteConnection,
    line: &LogLine,
    words: &str,
    place: i64,
) -> Result<(), StoreError> {
    let before: Option<i64> = sqlx::query_scalar("SELECT id FROM log WHERE key = ?")
        .bind(&line.key)
        .fetch_optional(&mut *connection)
        .await?;
    if let Some(before) = before {
        sqlx::query("DELETE FROM log_words WHERE rowid = ?").bind(before).execute(&mut *connection).await?;
        sqlx::query("DELETE FROM log WHERE id = ?").bind(before).execute(&mut *connection).await?;
    }
    let first = line.at.as_second().saturating_mul(A_SECOND);
    // The first free number of its second, and of the next where thousands were made in it.
    let id: i64 = sqlx::query_scalar(
        "SELECT CASE WHEN EXISTS (SELECT 1 FROM log WHERE id = ?1)
             THEN (SELECT min(l.id) + 1 FROM log l WHERE l.id >= ?1 AND NOT EXISTS (SELECT 1 FROM log n WHERE n.id = l.id + 1))
             ELSE ?1 END",
    )
    .bind(first)
    .fetch_one(&mut *connection)
    .await?;
    sqlx::query(
        "INSERT INTO log (id, key, family, job, component, room_c, came, tests) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
    )
    .bind(id)
    .bind(&line.key)
    .bind(line.family.key())
    .bind(&line.job)
    .bind(&line.component)
    .bind(line.room_c)
    .bind(line.came.map(|own| own.word()))
    .bind(i64::try_from(line.tests).unwrap_or(i64::MAX))
    .execute(&mut *connection)
    .await?;
    sqlx::query("INSERT INTO log_lines (id, line) VALUES (?, ?)")
        .bind(id)
        .bind(serde_json::to_string(line)?)
        .execute(&mut *connection)
        .await?;
    for (kind, all) in [("ingredient", &line.ingredients), ("lot", &line.lots)] {
        for thing in all {
            sqlx::query("INSERT OR IGNORE INTO log_of (kind, thing, id) VALUES (?, ?, ?)")
                .bind(kind)
                .bind(thing)
                .bind(id)
                .execute(&mut *connection)
                .await?;
        }
    }
    for own in &line.took {
        sqlx::query("INSERT OR REPLACE INTO log_minutes (id, school, step, times) VALUES (?, ?, ?, ?)")
            .bind(id)
            .bind(&own.school)
            .bind(&own.step)
            .bind(own.times)
            .execute(&mut *connection)
            .await?;
    }
    sqlx::query("INSERT INTO log_words (rowid, words) VALUES (?, ?)")
        .bind(id)
        .bind(words)
        .execute(&mut *connection)
        .await?;
    sqlx::query(
        "DELETE FROM log_behind WHERE key = ?1
             AND (SELECT coalesce(max(place), 0) FROM events WHERE noun = 'batch' AND key = ?1) = ?2",
    )
    .bind(&line.key)
    .bind(place)
    .execute(&mut *connection)
    .await?;
    Ok(())
}
