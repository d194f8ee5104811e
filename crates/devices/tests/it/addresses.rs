use devices::address::{Amiss, DeviceAddress, DeviceKind, amiss};

fn at(name: &str, address: &str) -> DeviceAddress {
    DeviceAddress { kind: DeviceKind::Scale, name: name.to_owned(), address: address.to_owned() }
}

#[test]
fn only_numbers_that_a_device_can_have_are_addresses() {
    for good in ["127.0.0.1:4721", "localhost:4721", " 192.168.1.20:9 ", "[::1]:4721", "[fe80::1]:80"] {
        assert!(at("a", good).socket().is_ok(), "{good}");
    }
    for bad in [
        "",
        "scale.example:4721",
        "127.0.0.1",
        "127.0.0.1:0",
        "0.0.0.0:4721",
        "224.0.0.1:80",
        "255.255.255.255:9",
        "[::]:1",
        "http://127.0.0.1:80",
        "127.0.0.1:99999",
        "1.2.3:4",
    ] {
        assert!(at("a", bad).socket().is_err(), "{bad}");
    }
}

#[test]
fn what_is_amiss_stands_at_its_field() {
    let all = [at("Scale", "127.0.0.1:1"), at(" Scale ", "localhost:1"), at("", "there")];
    let found: Vec<(String, Amiss)> = amiss(&all).into_iter().map(|(field, what, _)| (field, what)).collect();
    assert_eq!(
        found,
        [
            ("devices.1.name".to_owned(), Amiss::Twice),
            ("devices.1.address".to_owned(), Amiss::Twice),
            ("devices.2.name".to_owned(), Amiss::Name),
            ("devices.2.address".to_owned(), Amiss::Address),
        ]
    );
    let many: Vec<_> = (1..=41).map(|port| at(&format!("s{port}"), &format!("127.0.0.1:{port}"))).collect();
    assert_eq!(amiss(&many)[0].1, Amiss::TooMany);
}
