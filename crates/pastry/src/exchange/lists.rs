//! The lists of an order as CSV: for a spreadsheet, or for whoever does the buying.

use crate::order::answer::OrderAnswer;
use crate::spreadsheet::harmless;
use crate::stack::place_answer::limit_grams;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Which list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ListKind {
    /// What to buy.
    Shopping,
    /// What to weigh.
    Weighing,
    /// Every place of every cake.
    Bill,
    /// Labels.
    Labels,
}

fn text(value: Option<f64>) -> String {
    value.map(|value| format!("{value}")).unwrap_or_default()
}

/// A list as CSV, with a header.
pub fn to_csv(answer: &OrderAnswer, kind: ListKind) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    let mut row = |cells: &[String]| {
        let cells: Vec<String> = cells.iter().map(|cell| harmless(cell)).collect();
        writer.write_record(&cells).expect("memory takes every row");
    };
    let heads = |words: &str| words.split(',').map(str::to_owned).collect::<Vec<String>>();
    // Under the heads, in as many cells: nobody takes the list for a whole one.
    let open = |cells: usize| -> Vec<Vec<String>> {
        let padded = |words: &String| {
            let mut row = vec![format!("INCOMPLETE: {words}")];
            row.resize(cells, String::new());
            row
        };
        answer.incomplete.iter().map(padded).collect()
    };
    match kind {
        ListKind::Shopping => {
            row(&heads("ingredient,shelf,needed_g,in_pieces,packs,pack_g,price,left_g,used_in"));
            open(9).iter().for_each(|cells| row(cells));
            for line in &answer.shopping {
                row(&[
                    line.name.clone(),
                    line.group.word().to_owned(),
                    limit_grams(line.needed_g),
                    line.in_pieces.clone().unwrap_or_default(),
                    line.packs.map(|packs| packs.to_string()).unwrap_or_default(),
                    text(line.pack_g),
                    text(line.price),
                    text(line.left_g),
                    line.used_in.join("; "),
                ]);
            }
        }
        ListKind::Weighing => {
            row(&heads("batch,ingredient,mass_g,in_pieces"));
            open(4).iter().for_each(|cells| row(cells));
            for batch in &answer.batches {
                for line in &batch.lines {
                    row(&[
                        batch.name.clone(),
                        line.name.clone(),
                        limit_grams(line.mass_g),
                        line.in_pieces.clone().unwrap_or_default(),
                    ]);
                }
                row(&[
                    batch.name.clone(),
                    "all of it".to_owned(),
                    limit_grams(batch.to_make_g),
                    String::new(),
                ]);
            }
        }
        ListKind::Bill => {
            row(&heads("cake,count,tier,place,part,each_g,all_g"));
            open(7).iter().for_each(|cells| row(cells));
            for line in &answer.bill {
                row(&[
                    line.cake.clone(),
                    line.count.to_string(),
                    line.tier.to_string(),
                    line.place.clone(),
                    line.part.clone(),
                    limit_grams(line.each_g),
                    format!("{}", line.all_g),
                ]);
            }
        }
        ListKind::Labels => {
            row(&heads(
                "what,amount,order,made_on,use_by,keeps_days,keep_at,allergens,notes,copies,incomplete",
            ));
            for label in &answer.labels {
                row(&[
                    label.what.clone(),
                    label.amount.clone(),
                    label.order.clone(),
                    label.made_on.map(|date| date.to_string()).unwrap_or_default(),
                    label.use_by.map(|date| date.to_string()).unwrap_or_default(),
                    label.keeps_days.to_string(),
                    label.keep_at.clone(),
                    label.allergens.join("; "),
                    label.notes.join("; "),
                    label.copies.to_string(),
                    if label.incomplete.is_empty() {
                        String::new()
                    } else {
                        format!("INCOMPLETE: {}", label.incomplete.join(" "))
                    },
                ]);
            }
        }
    }
    let bytes = writer.into_inner().expect("memory takes every row");
    String::from_utf8(bytes).expect("text stays text")
}
