using TinRabbit.Core.Pages;

namespace TinRabbit.Server.Demo;

/// <summary>The pages of the demo’s web shop: about forty, with faults that sellers know.</summary>
internal static class DemoPages
{
    /// <summary>A page of the demo: what is not given is empty.</summary>
    internal sealed record Draft(
        PageKind Kind,
        string Name,
        string? Inside,
        string? Lead = null,
        string? Title = null,
        string? Meta = null,
        string? Slug = null,
        string? Body = null,
        string? Menu = null,
        string? Product = null,
        bool Published = true,
        string[]? Picks = null
    );

    /// <summary>Terms of the web market that the pages are about.</summary>
    public static IReadOnlyList<string> Terms => [.. All.SelectMany(p => (p.Picks ?? []).Append(p.Lead)).OfType<string>().Distinct()];

    public static readonly IReadOnlyList<Draft> All =
    [
        new(
            PageKind.Content,
            "Plover & Pine, things for people who watch birds",
            null,
            Lead: "bird lover gift",
            Title: "Bird lover gifts, made by hand in a shed by the marsh",
            Meta: "Discover cedar nest boxes, window feeders and gifts for bird lovers, made by two people in a shed with a view of the marsh. Posted within a week.",
            Slug: "home",
            Body: "<p>A bird lover gift should be used, not dusted. Everything here is made by the two of us.</p><h2>What we make</h2><p>See our <a href=\"page:{Bird houses}\">bird houses</a>, <a href=\"page:{Feeders}\">feeders</a> and <a href=\"page:{Wall charts and prints}\">charts</a>. A bird lover gift from us comes with a card.</p>",
            Menu: "Home",
            Picks: ["bird lover gift", "gifts for bird lovers"]
        ),
        Category(
            "Bird houses",
            null,
            "bird house",
            "Bird houses of cedar and larch",
            menu: "Bird houses",
            slug: "bird-houses",
            picks: ["bird house", "bird houses", "wooden bird house", "birdhouse"]
        ),
        Category(
            "Nest boxes for wrens and other small birds of the garden",
            "Bird houses",
            "nest box",
            "Nest boxes",
            slug: "12",
            picks: ["nest box", "nesting box", "bird nest box", "wren house"]
        ),
        new(
            PageKind.Product,
            "Wren nest box, cedar",
            "Nest boxes for wrens and other small birds of the garden",
            Product: "Wren nest box, cedar"
        ),
        Category(
            "Owl boxes",
            "Bird houses",
            "owl box",
            "Owl boxes and owl houses",
            slug: "owl-box",
            picks: ["owl box", "owl house", "owl nest box"]
        ),
        Category(
            "Bluebird houses",
            "Bird houses",
            "bluebird house",
            null,
            slug: "bluebird-house",
            picks: ["bluebird house", "bluebird nest box"]
        ),
        Category("Robin nest boxes", "Bird houses", "robin nest box", null, published: false, picks: ["robin nest box"]),
        Category(
            "Feeders",
            null,
            "bird feeder",
            "Bird feeders for windows and gardens that are easy to clean",
            menu: "Feeders",
            slug: "bird-feeder",
            picks: ["bird feeder", "bird feeders", "window bird feeder"]
        ),
        new(
            PageKind.Product,
            "Window feeder",
            "Feeders",
            Product: "Window feeder",
            Lead: "window bird feeder",
            Title: "Window bird feeder",
            Slug: "window-bird-feeder",
            Body: "<p>See birds close by.</p>"
        ),
        Category(
            "Window feeders",
            "Feeders",
            "window bird feeder",
            "Window bird feeder, clear",
            slug: "window-feeder",
            picks: ["window bird feeder", "window feeder"]
        ),
        Category("Seed feeders", "Feeders", "seed feeder", null, slug: "seed-feeder", picks: ["seed feeder"]),
        Category("Suet feeders", "Feeders", "suet feeder", null, slug: "suet-feeder", picks: ["suet feeder"]),
        Category("Bird tables", "Feeders", "bird table", "Bird tables", slug: "bird-table", picks: ["bird table"]),
        Category(
            "Bat boxes",
            null,
            "bat box",
            "Bat boxes and bat houses",
            menu: "Bats",
            slug: "bat-box",
            picks: ["bat box", "bat house", "bat boxes", "bat houses"]
        ),
        new(
            PageKind.Product,
            "Bat box",
            "Bat boxes",
            Product: "Bat box",
            Lead: "bat house",
            Title: "Bat box, larch",
            Slug: "larch-bat-box",
            Body: "<p>A dry, rough place to sleep through the day for up to forty bats.</p><p>See all <a href=\"page:{Bat boxes}\">bat boxes</a>.</p>",
            Picks: ["bat house", "bat box"]
        ),
        Category("Bird baths", null, "bird bath", null, menu: "Baths", slug: "bird-bath", picks: ["bird bath", "birdbath"]),
        Category(
            "Wall charts and prints",
            null,
            "bird chart",
            "Bird charts and bird posters",
            menu: "Charts",
            slug: "bird-chart",
            picks: ["bird chart", "bird poster", "bird print"]
        ),
        new(
            PageKind.Product,
            "Garden birds wall chart",
            "Wall charts and prints",
            Product: "Garden birds wall chart",
            Lead: "garden bird chart",
            Slug: "garden-bird-chart",
            Body: "<p>Forty garden birds in watercolour.</p>",
            Picks: ["garden bird chart", "bird chart"]
        ),
        Category("Bird prints", "Wall charts and prints", "bird print", null, slug: "bird-print", picks: ["bird print", "bird wall art"]),
        Category("Shirts", null, "bird shirt", "Bird shirts", menu: "Shirts", slug: "bird-shirt", picks: ["bird shirt", "heron shirt"]),
        new(
            PageKind.Product,
            "Heron T-shirt",
            "Shirts",
            Product: "Heron T-shirt",
            Lead: "heron shirt",
            Title: "Heron shirt",
            Slug: "heron-shirt",
            Body: "<p>A heron in three strokes.</p>"
        ),
        Category(
            "For schools",
            null,
            "bird worksheet",
            null,
            menu: "Schools",
            slug: "bird-worksheet",
            picks: ["bird worksheet", "bird count sheet"]
        ),
        new(
            PageKind.Product,
            "Bird-count sheets for classrooms",
            "For schools",
            Product: "Bird-count sheets for classrooms",
            Lead: "bird count sheet",
            Slug: "bird-count-sheet",
            Body: "<p>Twenty garden birds to colour, with a box to tally each.</p>"
        ),
        Category(
            "Stay with us",
            null,
            "wildlife cabin",
            "Wildlife cabin by the marsh with a hide",
            menu: "Stay",
            slug: "wildlife-cabin",
            picks: ["wildlife cabin", "bird watching cabin"]
        ),
        new(
            PageKind.Product,
            "Two-bed cabin with a hide",
            "Stay with us",
            Product: "Two-bed cabin with a hide",
            Lead: "bird watching cabin",
            Slug: "bird-watching-cabin",
            Body: "<p>Two beds, a stove and a hide ten steps from the door.</p>"
        ),
        Category(
            "Gifts",
            null,
            "bird lover gift",
            "Gifts for bird lovers",
            menu: "Gifts",
            slug: "bird-lover-gift",
            picks: ["bird lover gift", "gifts for bird lovers", "bird lover gift for mom"]
        ),
        Content("Journal", null, null, "Notes from the shed and the marsh.", menu: "Journal", slug: "journal"),
        Content(
            "When to put up a nest box",
            "Journal",
            "when to put up a nest box",
            "Put a nest box up in autumn. Small birds sleep in it through the winter, and by March it smells of the garden. A nest box that goes up in April is often empty until the next year."
        ),
        Content(
            "How to clean a nest box",
            "Journal",
            "how to clean a nest box",
            "Open the front in October, lift the old nest out with gloves, and brush the corners. No soap. See our <a href=\"page:{Nest boxes for wrens and other small birds of the garden}\">nest boxes</a>."
        ),
        Content(
            "Where to hang a bird feeder",
            "Journal",
            "where to hang a bird feeder",
            "Two metres from cover, out of the wind, where you sit. See <a href=\"page:99999\">our old feeder</a>."
        ),
        Content("What do bats eat?", "Journal", "what do bats eat", "Midges, moths and beetles: up to three thousand midges a night."),
        Content("A hide for children", "Journal", "bird hide for kids", "An old sheet, two canes, a slot.", published: false),
        Content(
            "How wide should the hole be?",
            "Journal",
            "bird house hole size",
            "28 mm for wrens and blue tits, 32 mm for sparrows, 45 mm for starlings. The wrong hole brings the wrong bird, or none."
        ),
        Content("About us", null, null, "We are two people, a shed and a spaniel.", menu: "About", slug: "about-us"),
        Content("Delivery", null, null, "Posted within a week, in a box that we have used before.", slug: "delivery"),
        Content("Returns", null, null, "Send it back within a month. See <a href=\"page:99998\">the form</a>.", slug: "returns"),
        Content("Care for cedar", "About us", "cedar care", "Leave it. It turns silver in a year.", slug: "care-for-cedar"),
        Content("Workshop", "About us", null, "", slug: "workshop", published: false),
        Content("Contact", null, null, "Write to us.", menu: "Contact", slug: "contact"),
    ];

    private static Draft Category(
        string name,
        string? inside,
        string lead,
        string? title,
        string? menu = null,
        string? slug = null,
        string[]? picks = null,
        bool published = true
    ) =>
        new(
            PageKind.Category,
            name,
            inside,
            lead,
            title,
            title is null
                ? null
                : $"Browse our {name.ToLowerInvariant()}, made by hand of wood that lasts, and find one that fits your garden.",
            slug,
            $"<p>Here is every {lead} that we make, each cut and put together by the two of us.</p><h2>How to choose</h2><p>Ask us: we use them ourselves.</p>",
            menu,
            Published: published,
            Picks: picks
        );

    private static Draft Content(
        string name,
        string? inside,
        string? lead,
        string body,
        string? menu = null,
        string? slug = null,
        bool published = true
    ) => new(PageKind.Content, name, inside, lead, null, null, slug, body.Length > 0 ? $"<p>{body}</p>" : null, menu, Published: published);
}
