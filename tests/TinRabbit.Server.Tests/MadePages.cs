using System.Globalization;
using System.Net;
using System.Text;

namespace TinRabbit.Server.Tests;

/// <summary>A results page that was made up, and what a reader sees on it.</summary>
internal sealed record MadePage(
    string Layout,
    string Language,
    string Html,
    string Copied,
    string Query,
    long Total,
    IReadOnlyList<MadeItem> Items
);

/// <summary>A listing on a made-up page.</summary>
internal sealed record MadeItem(
    string Title,
    decimal Price,
    decimal? Before,
    decimal? UpTo,
    double Stars,
    int Ratings,
    string Shop,
    bool IsAd,
    bool ShipsFree
);

/// <summary>Results pages of marketplaces that do not exist: in many layouts and five languages, with what stands around the results.</summary>
internal sealed class MadePages(int seed)
{
    private readonly Random _random = new(seed);

    private sealed record Language(
        string Code,
        string Sign,
        bool SignBehind,
        string Decimal,
        string Thousands,
        string[] Ads,
        string OutOf,
        string By,
        string Of,
        string Results,
        string For,
        string Related,
        string Aside,
        string Was,
        string Free,
        string Shipping,
        string To,
        string Under,
        string[] First,
        string[] Second,
        string[] Nouns
    );

    private static readonly Language[] Languages =
    [
        new(
            "en",
            "£",
            false,
            ".",
            ",",
            ["Ad", "Sponsored"],
            "out of 5 stars",
            "by",
            "of",
            "results",
            "for",
            "Related searches",
            "You may also like",
            "Was",
            "Free delivery",
            "delivery",
            "to",
            "Under",
            ["Leather", "Linen", "Waxed canvas", "Hand-bound", "Refillable", "Embossed"],
            ["A5", "pocket", "travel", "large", "personalised", "vintage-style"],
            ["notebook cover", "journal", "sketchbook", "pen loop", "photo album", "guest book"]
        ),
        new(
            "de",
            "€",
            true,
            ",",
            ".",
            ["Anzeige", "Gesponsert"],
            "von 5 Sternen",
            "von",
            "von",
            "Ergebnissen",
            "für",
            "Ähnliche Suchen",
            "Das könnte Ihnen auch gefallen",
            "Statt",
            "Kostenloser Versand",
            "Versand",
            "bis",
            "Unter",
            ["Leder", "Leinen", "Handgebundenes", "Nachfüllbares", "Geprägtes", "Schlichtes"],
            ["A5", "kleines", "großes", "personalisiertes", "rustikales", "weiches"],
            ["Notizbuch", "Tagebuch", "Skizzenbuch", "Fotoalbum", "Gästebuch", "Reisejournal"]
        ),
        new(
            "fr",
            "€",
            true,
            ",",
            "\u202f",
            ["Annonce", "Sponsorisé"],
            "sur 5 étoiles",
            "par",
            "sur",
            "résultats",
            "pour",
            "Recherches associées",
            "Vous aimerez aussi",
            "Avant",
            "Livraison gratuite",
            "livraison",
            "à",
            "Moins de",
            ["Carnet en cuir", "Couverture en lin", "Journal relié", "Album rechargeable", "Carnet gravé", "Pochette cirée"],
            ["A5", "de poche", "de voyage", "grand format", "personnalisé", "ancien"],
            ["fait main", "pour écrivain", "à fermoir", "avec élastique", "en papier épais", "à lacet"]
        ),
        new(
            "es",
            "€",
            true,
            ",",
            ".",
            ["Anuncio", "Patrocinado"],
            "de 5 estrellas",
            "de",
            "de",
            "resultados",
            "para",
            "Búsquedas relacionadas",
            "También te puede gustar",
            "Antes",
            "Envío gratis",
            "envío",
            "a",
            "Menos de",
            ["Cuaderno de cuero", "Funda de lino", "Diario cosido", "Álbum recargable", "Libreta grabada", "Portada encerada"],
            ["A5", "de bolsillo", "de viaje", "grande", "personalizado", "antiguo"],
            ["hecho a mano", "para escritor", "con cierre", "con goma", "de papel grueso", "con lazo"]
        ),
        new(
            "it",
            "€",
            false,
            ",",
            ".",
            ["Annuncio", "Sponsorizzato"],
            "su 5 stelle",
            "di",
            "di",
            "risultati",
            "per",
            "Ricerche correlate",
            "Potrebbe interessarti",
            "Prima",
            "Spedizione gratuita",
            "spedizione",
            "a",
            "Meno di",
            ["Quaderno in pelle", "Copertina di lino", "Diario rilegato", "Album ricaricabile", "Taccuino inciso", "Custodia cerata"],
            ["A5", "tascabile", "da viaggio", "grande", "personalizzato", "antico"],
            ["fatto a mano", "per scrittori", "con chiusura", "con elastico", "di carta spessa", "con laccio"]
        ),
    ];

    public static IReadOnlyList<string> Layouts { get; } =
    [
        "cards",
        "list",
        "rows",
        "table",
        "link",
        "hashed",
        "data",
        "microdata",
        "cut",
        "flat",
        "promotions",
        "terms",
        "ranges",
        "line",
        "ordered",
    ];

    /// <summary>A page of a layout in a language, by its number from 0 to 4.</summary>
    /// <param name="layout">One of <see cref="Layouts"/>.</param>
    /// <param name="language">Its number.</param>
    /// <param name="listings">How many listings it has; null for a usual number.</param>
    public MadePage Make(string layout, int language, int? listings = null)
    {
        var l = Languages[language];
        var query = $"{Pick(l.First)} {Pick(l.Nouns)}".ToLowerInvariant();
        var total = _random.Next(200, 40_000);
        var items = Enumerable.Range(0, listings ?? _random.Next(18, 49)).Select(_ => Item(l, layout)).DistinctBy(i => i.Title).ToList();
        var body = layout switch
        {
            "list" =>
                $"<ul>{All(items, i => $"<li><article><div><img src=x.jpg alt=\"{E(i.Title)}\"></div><div><h2><a href=/l/{Slug(i)}>{E(i.Title)}</a></h2><strong>{Price(l, i.Price)}</strong>{Old(l, i, "del")}<p>{Stars(l, i)}</p><p>{l.By} {E(i.Shop)}</p>{Ad(l, i, "small")}</div></article></li>")}</ul>",
            "rows" => string.Concat(
                items
                    .Chunk(4)
                    .Select(r =>
                        $"<div class=row>{All(r, i => $"<div class=c><a href=/x/{Slug(i)}><img src=p.png alt=\"\"></a><p><a href=/x/{Slug(i)}>{E(i.Title)}</a></p><p>{Price(l, i.Price)}</p><p>{Stars(l, i)}</p>{Ad(l, i, "em")}</div>")}</div>"
                    )
            ),
            "table" =>
                $"<table><tbody>{All(items, i => $"<tr><td><img src=t.gif alt=\"\"></td><td><a href=\"?id={Slug(i)}\">{E(i.Title)}</a> {Ad(l, i, "span")}</td><td>{E(i.Shop)}</td><td>{Price(l, i.Price)}</td><td>{Stars(l, i)}</td></tr>")}</tbody></table>",
            "link" =>
                $"<div class=g>{All(items, i => $"<div><a href=/item/{Slug(i)}><div><img src=q.webp alt=\"\"></div><div>{Ad(l, i, "span")}<span>{E(i.Title)}</span></div><div>{Raised(l, i.Price)}</div><div>{Stars(l, i)}</div><div>{l.By} {E(i.Shop)}</div></a></div>")}</div>",
            "hashed" =>
                $"<div class=k3_f>{All(items, i => $"<div class=x9><div class=zz1><div class=qw>{Ad(l, i, "div")}<a class=h2 href=/p/{Slug(i)}><h3 class=u8>{E(i.Title)}</h3></a><div class=m1>{Split(l, i.Price)}</div><div class=r4><span aria-label=\"{Number(l, i.Stars, 1)} {l.OutOf}\"></span><span>({Whole(l, i.Ratings)})</span></div></div></div></div>")}</div>",
            "data" =>
                $"<script type=application/ld+json>{Data(items)}</script><div>{All(items, i => $"<div><a href=\"/it/{Slug(i)}\"><h3>{E(Cut(i.Title))}</h3></a><span>{Price(l, i.Price)}</span>{Ad(l, i, "span")}</div>")}</div>",
            "microdata" =>
                $"<section>{All(items, i => $"<div itemscope itemtype=https://schema.org/Product><a itemprop=url href=/m/{Slug(i)}><span itemprop=name>{E(i.Title)}</span></a><div itemprop=offers itemscope itemtype=https://schema.org/Offer><meta itemprop=price content={i.Price.ToString(CultureInfo.InvariantCulture)}><meta itemprop=priceCurrency content={(l.Sign == "£" ? "GBP" : "EUR")}><b>{Price(l, i.Price)}</b></div>{Ad(l, i, "i")}</div>")}</section>",
            "cut" =>
                $"<div>{All(items, i => $"<div><a href=/c/{Slug(i)} aria-label=\"{E(i.Title)}\"><span>{E(Cut(i.Title))}</span></a><div>{Price(l, i.Price)}</div><div>{Stars(l, i)}</div>{Ad(l, i, "div")}</div>")}</div>",
            "flat" =>
                $"<div>{All(items, i => $"<h3><a href=/f/{Slug(i)}>{E(i.Title)}</a></h3><p>{Price(l, i.Price)}</p><p>{Stars(l, i)}</p><p>{l.By} {E(i.Shop)}</p>{Ad(l, i, "p")}")}</div>",
            "promotions" =>
                $"<div>{string.Concat(items.Select((i, n) => $"<div class=r>{Ad(l, i, "span")}<div><a href=/r/{Slug(i)}><img src=a.jpg alt=\"\"></a></div><h2><a href=/r/{Slug(i)}>{E(i.Title)}</a></h2><div><span>{Price(l, i.Price)}</span></div></div>" + (n % 7 == 3 ? $"<div class=promo><a href=/sale><h2>{E(l.Aside)}!</h2></a><p>–20 %</p></div>" : "")))}</div>",
            "terms" =>
                $"<dl>{All(items, i => $"<dt><a href=/d/{Slug(i)}>{E(i.Title)}</a></dt><dd>{Price(l, i.Price)}</dd><dd>{Stars(l, i)}</dd>{Ad(l, i, "dd")}")}</dl>",
            "ranges" =>
                $"<div>{All(items, i => $"<div><h4><a href=/v/{Slug(i)}>{E(i.Title)}</a></h4><div>{(i.UpTo is { } up ? $"{Price(l, i.Price)} – {Price(l, up)}" : Price(l, i.Price))}</div>{(i.Before is { } was ? $"<div>{l.Was} <span>{Price(l, was)}</span></div>" : "")}{(i.ShipsFree ? $"<div>{l.Free}</div>" : $"<div>+ {Price(l, 3.5m)} {l.Shipping}</div>")}{Ad(l, i, "div")}</div>")}</div>",
            "line" =>
                $"<ul>{All(items, i => $"<li><a href=/n/{Slug(i)}><h3>{E(i.Title)}</h3></a><p>{l.By} <a href=/s/{Slug(i)}>{E(i.Shop)}</a></p><p>{Ad(l, i, "span")} {Old(l, i, "del")} <span>{Price(l, i.Price)}</span> {(i.ShipsFree ? $"<em>{l.Free}</em>" : $"<em>+ {Price(l, 3.5m)} {l.Shipping}</em>")}</p><p>{Stars(l, i)}</p></li>")}</ul>",
            "ordered" =>
                $"<ol>{All(items, i => $"<li><div><div><a href=/o/{Slug(i)} title=\"{E(i.Title)}\"><div>{E(i.Title)}</div></a></div><div><div>{Number(l, i.Stars, 1)} {l.OutOf.Split(' ')[0]} 5 ({Whole(l, i.Ratings)})</div><div>{Price(l, i.Price)}</div><div><a href=/shop/{Slug(i)}>{E(i.Shop)}</a></div></div></div>{Ad(l, i, "div")}</li>")}</ol>",
            _ =>
                $"<div class=grid>{All(items, i => $"<div class=card><a href=/a/{Slug(i)}><img src=a.jpg alt=\"{E(i.Title)}\"></a><h3><a href=/a/{Slug(i)}>{E(i.Title)}</a></h3><span class=price>{Price(l, i.Price)}</span>{Old(l, i, "s")}<div aria-label=\"{Number(l, i.Stars, 1)} {l.OutOf}\">★★★★★</div><span>({Whole(l, i.Ratings)})</span><p>{l.By} {E(i.Shop)}</p>{Ad(l, i, "span")}</div>")}</div>",
        };
        return new(layout, l.Code, Around(l, query, total, items.Count, body), Copied(l, query, total, items), query, total, items);
    }

    private MadeItem Item(Language l, string layout)
    {
        var title = string.Join(
            _random.Next(2) == 0 ? ", " : " ",
            Enumerable.Range(0, _random.Next(1, 4)).Select(_ => $"{Pick(l.First)} {Pick(l.Second)} {Pick(l.Nouns)}").Distinct()
        );
        var price = decimal.Round(_random.Next(300, 240_000) / (_random.Next(3) == 0 ? 100m : 1000m), 2) + 3;
        return new(
            title,
            price,
            _random.Next(5) == 0 ? price + _random.Next(3, 40) : null,
            layout == "ranges" && _random.Next(6) == 0 ? price + _random.Next(2, 30) : null,
            Math.Round(3 + 2 * _random.NextDouble(), 1),
            _random.Next(1, 5_000),
            $"{Pick(["Fen", "Moor", "Tarn", "Holt", "Weald"])} {Pick(["Works", "Bindery", "Studio", "Paper", "Press"])}",
            _random.Next(9) == 0,
            _random.Next(3) == 0
        );
    }

    private string Around(Language l, string query, int total, int shown, string body)
    {
        var links = string.Concat(Enumerable.Range(0, 14).Select(i => $"<li><a href=/c{i}>{Pick(l.Nouns)}</a></li>"));
        var filters = string.Concat(
            Enumerable
                .Range(1, 6)
                .Select(i =>
                    $"<li><label><input type=checkbox> <a href=\"?p={i}\">{l.Under} {Price(l, i * 20)}</a> ({Whole(l, i * 113)})</label></li>"
                )
        );
        var carousel =
            $"<section><h2>{l.Aside}</h2><div>{string.Concat(Enumerable.Range(0, 8).Select(i => $"<div><a href=/y{i}><h4>{Pick(l.First)} {Pick(l.Nouns)}</h4></a><span>{Price(l, 9 + i)}</span></div>"))}</div></section>";
        var related =
            $"<div><h2>{l.Related}</h2><ul>{string.Concat(Enumerable.Range(0, 6).Select(i => $"<li><a href=\"?q={i}\">{Pick(l.First)} {Pick(l.Second)} {i}</a></li>"))}</ul></div>";
        var stated = $"1–{shown} {l.Of} {Whole(l, total)} {l.Results} {l.For} “{E(query)}”";
        return $"<!doctype html><html lang={l.Code}><head><title>{E(query)}</title></head><body><header><a href=/>Market</a><form><input name=q type=search value=\"{E(query)}\"></form><nav><ul>{links}</ul></nav></header><main><aside><h3>Filter</h3><ul>{filters}</ul></aside><div><h1>{stated}</h1>{(_random.Next(2) == 0 ? carousel : "")}{body}{carousel}{related}<nav><a href=?p=2>2</a><a href=?p=3>3</a></nav></div></main><footer><ul>{links}{links}</ul></footer></body></html>";
    }

    private string Copied(Language l, string query, int total, IEnumerable<MadeItem> items)
    {
        var text = new StringBuilder($"Market\n{l.Under} {Price(l, 20)}\n1–24 {l.Of} {Whole(l, total)} {l.Results} {l.For} “{query}”\n");
        foreach (var i in items)
            text.Append(
                CultureInfo.InvariantCulture,
                $"{(i.IsAd ? Pick(l.Ads) + "\n" : "")}{i.Title}\n{Price(l, i.Price)}\n{Number(l, i.Stars, 1)} {l.OutOf}\n({Whole(l, i.Ratings)})\n{l.By} {i.Shop}\n"
            );
        return text.Append(CultureInfo.InvariantCulture, $"{l.Related}\n{Pick(l.First)} {Pick(l.Second)}\n").ToString();
    }

    private string Pick(string[] of) => of[_random.Next(of.Length)];

    private static string All(IEnumerable<MadeItem> items, Func<MadeItem, string> one) => string.Concat(items.Select(one));

    private static string E(string text) => WebUtility.HtmlEncode(text);

    private static string Slug(MadeItem item) => $"{Math.Abs(item.Title.Aggregate(17, (h, c) => h * 31 + c))}";

    private string Ad(Language l, MadeItem item, string tag) => item.IsAd ? $"<{tag}>{Pick(l.Ads)}</{tag}>" : "";

    private static string Old(Language l, MadeItem item, string tag) =>
        item.Before is { } before ? $" <{tag}>{Price(l, before)}</{tag}>" : "";

    private static string Stars(Language l, MadeItem i) =>
        $"<span>{Number(l, i.Stars, 1)} {l.OutOf}</span> <span>({Whole(l, i.Ratings)})</span>";

    private static string Price(Language l, decimal price) =>
        l.SignBehind ? $"{Number(l, (double)price, 2)} {l.Sign}" : $"{l.Sign}{Number(l, (double)price, 2)}";

    private static string Raised(Language l, decimal price)
    {
        var parts = Number(l, (double)price, 2).Split(l.Decimal);
        return l.SignBehind
            ? $"<span>{parts[0]}<sup>{parts[1]}</sup> {l.Sign}</span>"
            : $"<span>{l.Sign}{parts[0]}<sup>{parts[1]}</sup></span>";
    }

    private static string Split(Language l, decimal price)
    {
        var parts = Number(l, (double)price, 2).Split(l.Decimal);
        var number = $"<span>{parts[0]}</span><span>{l.Decimal}</span><span>{parts[1]}</span>";
        return l.SignBehind ? $"{number}<span> {l.Sign}</span>" : $"<span>{l.Sign}</span>{number}";
    }

    private static string Number(Language l, double value, int decimals) =>
        value
            .ToString("#,0." + new string('0', decimals), CultureInfo.InvariantCulture)
            .Replace(",", "T")
            .Replace(".", l.Decimal)
            .Replace("T", l.Thousands);

    private static string Whole(Language l, long value) => value.ToString("#,0", CultureInfo.InvariantCulture).Replace(",", l.Thousands);

    private static string Cut(string title) => title.Length > 32 ? title[..30].TrimEnd() + "…" : title;

    private static string Data(IEnumerable<MadeItem> items) =>
        System.Text.Json.JsonSerializer.Serialize(
            new Dictionary<string, object>
            {
                ["@context"] = "https://schema.org",
                ["@type"] = "ItemList",
                ["itemListElement"] = items
                    .Select(
                        (i, n) =>
                            new Dictionary<string, object>
                            {
                                ["@type"] = "ListItem",
                                ["position"] = n + 1,
                                ["url"] = $"https://market.example/it/{Slug(i)}",
                                ["item"] = new Dictionary<string, object> { ["@type"] = "Product", ["name"] = i.Title },
                            }
                    )
                    .ToList(),
            }
        );
}
