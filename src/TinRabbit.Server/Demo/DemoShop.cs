using TinRabbit.Core.Measures;
using TinRabbit.Market;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Demo;

/// <summary>The made-up shop of the demo. Its listings need work, each in a way that sellers know.</summary>
internal static class DemoShop
{
    /// <summary>The shop's name.</summary>
    public const string Name = "Plover & Pine";

    public static ShopRow Shop(DateTime at)
    {
        var shop = new ShopRow { Name = Name };
        shop.Products.AddRange([NestBox(at), WindowFeeder(at), BatBox(at), WallChart(at), HeronShirt(at), CountSheets(at), Cabin(at)]);
        return shop;
    }

    /// <summary>Terms dug in the markets of a platform before the first visit, so that its shelves have something to compare with.</summary>
    public static readonly Dictionary<string, string[]> Heads = new()
    {
        ["hedgerow-fair"] = ["bird house", "nest box", "bird feeder", "bat box", "bird chart", "bird lover gift", "casa para pájaros"],
        ["longbarrow"] = ["bird house", "nest box", "bird feeder", "bat box", "bird chart", "bird lover gift", "casa para pájaros"],
        ["overprint-lane"] = ["heron shirt", "bird shirt", "bird watching shirt", "bird lover gift"],
        ["chalk-shelf"] = ["bird count sheet", "bird worksheet", "bird lesson plan", "bird chart"],
        ["marsh-and-moor"] = ["cabin", "wildlife cabin", "bird watching cabin", "bird hide"],
        [MarketPlace.Web] = ["bird house", "nest box", "bat box"],
    };

    /// <summary>What the seller has picked for the window feeder so far, and kept for what they do not make yet.</summary>
    public static readonly (string Text, Fit Fit, Home Home, string Source)[] FeederPicks =
    [
        ("window bird feeder", Fit.Core, Home.Title, "bird feeder"),
        ("window feeder", Fit.Core, Home.Title, "bird feeder"),
        ("bird feeder", Fit.Core, Home.Anywhere, "bird feeder"),
        ("bird feeders", Fit.Good, Home.Anywhere, "bird feeder"),
        ("glass bird feeder", Fit.Stretch, Home.Anywhere, "bird feeder"),
        ("smart bird feeder", Fit.Stretch, Home.Later, "bird feeder"),
        ("bird feeder with camera", Fit.Stretch, Home.Later, "bird feeder"),
        ("squirrel proof bird feeder", Fit.Stretch, Home.Later, "bird feeder"),
        ("hummingbird feeder", Fit.Stretch, Home.Later, "bird feeder"),
        ("copper bird bath", Fit.Stretch, Home.Later, "bird feeder"),
    ];

    /// <summary>What the seller has picked for the heron shirt so far.</summary>
    public static readonly (string Text, Fit Fit, Home Home, string Source)[] HeronPicks =
    [
        ("heron shirt", Fit.Core, Home.Title, "heron shirt"),
        ("bird shirt", Fit.Core, Home.Title, "bird shirt"),
        ("bird watching shirt", Fit.Good, Home.Anywhere, "bird shirt"),
        ("womens bird shirt", Fit.Good, Home.Anywhere, "bird shirt"),
        ("vintage bird shirt", Fit.Stretch, Home.Anywhere, "bird shirt"),
        ("bird lover gift", Fit.Good, Home.Tags, "bird lover gift"),
    ];

    /// <summary>What the seller has picked for the nest box so far.</summary>
    public static readonly (string Text, Fit Fit, Home Home, string Source)[] NestBoxPicks =
    [
        ("wren nest box", Fit.Core, Home.Title, "nest box"),
        ("cedar nest box", Fit.Core, Home.Title, "nest box"),
        ("bird house", Fit.Core, Home.Title, "bird house"),
        ("wren house", Fit.Core, Home.Tags, "bird house"),
        ("cedar bird house", Fit.Core, Home.Tags, "bird house"),
        ("wooden bird house", Fit.Good, Home.Tags, "bird house"),
        ("small bird house", Fit.Good, Home.Anywhere, "bird house"),
        ("bird houses", Fit.Good, Home.Anywhere, "bird house"),
        ("bird nest box", Fit.Core, Home.Anywhere, "nest box"),
        ("nesting box", Fit.Core, Home.Anywhere, "nest box"),
        ("garden bird house", Fit.Good, Home.Anywhere, "bird house"),
        ("bird house for outside", Fit.Good, Home.Description, "bird house"),
        ("birdhouse", Fit.Core, Home.Anywhere, "bird house"),
        ("birdhouses", Fit.Good, Home.Anywhere, "bird house"),
        ("nesting boxes", Fit.Good, Home.Anywhere, "nest box"),
        ("bird nesting box", Fit.Core, Home.Anywhere, "nest box"),
        ("gifts for bird lovers", Fit.Good, Home.Tags, "bird lover gift"),
        ("bird lover gift", Fit.Good, Home.Tags, "bird lover gift"),
        ("bird lover gift for mom", Fit.Good, Home.Anywhere, "bird lover gift"),
        ("natural bird house", Fit.Good, Home.Anywhere, "bird house"),
        ("hanging bird house", Fit.Stretch, Home.Later, "bird house"),
        ("bird house kit", Fit.Stretch, Home.Anywhere, "bird house"),
        ("casa para pájaros", Fit.Stretch, Home.Backend, "casa para pájaros"),
        ("bluebird house", Fit.Stretch, Home.Avoid, "bird house"),
    ];

    private static ProductRow NestBox(DateTime at) =>
        Product(
            at,
            "Wren nest box, cedar",
            new()
            {
                What = "nest box",
                Materials = ["western red cedar", "brass"],
                Properties = ["handmade"],
                Colours = ["natural"],
                Sizes = ["small", "28 mm hole"],
                Audiences = ["gardeners", "bird lovers"],
                Occasions = ["birthday", "housewarming"],
            },
            ["A small cedar nest box with a brass plate, on an apple tree", "A wren looking out of the round door"],
            (
                "hedgerow-fair",
                """
                {"title":"Cedar wren nest box, small bird house for garden, 28mm hole wren houses, bird lover gift",
                 "tags":["cedar nest box","wren nest box","wren house","bird lover gift","wooden bird house","garden bird box","white nesting box","Plover and Pine","house"],
                 "materials":["western red cedar","brass screws"],
                 "category":["Garden","Birds","Nest boxes"],
                 "attributes":{"Hole size":"28 mm","Made from":"cedar"},
                 "description":"A snug house for the smallest bird in the garden: our cedar nest box has the 28 mm door that wrens like and blue tits respect. Left plain, it turns silver in a year and needs no paint.\n\nThe front swings open on two brass screws, so that last year's nest can be taken out in autumn. The roof slopes, the floor drains, and the wood is the right thickness to keep eggs warm in a cold April. Each one is cut and put together by the two of us in a shed with a view of the marsh."}
                """
            ),
            (
                "longbarrow",
                """
                {"title":"Plover & Pine Cedar Nest Box for Wrens",
                 "bullets":["CEDAR: Western red cedar weathers to silver and needs no paint","FOR WRENS: 28 mm hole keeps larger birds out","EASY TO CLEAN: The front opens on two brass screws"],
                 "backend":"cedar nest box wren nest box cedar wren box",
                 "category":["Patio and garden","Birds and wildlife"],
                 "attributes":{"Material":"cedar"},
                 "description":"A nest box for wrens."}
                """
            ),
            (
                "web-shop",
                """
                {"pageTitle":"Nest box","slug":"nest-box-1","heading":"Our nest box","metaDescription":"A nest box made of cedar.",
                 "body":"We make this box for wrens. It is made of cedar."}
                """
            )
        );

    private static ProductRow WindowFeeder(DateTime at) =>
        Product(
            at,
            "Window feeder",
            new()
            {
                What = "window bird feeder",
                Materials = ["acrylic", "oak"],
                Properties = ["handmade"],
                Colours = ["clear"],
                Sizes = ["large"],
                Audiences = ["children", "bird lovers"],
                Occasions = ["mother's day", "birthday"],
            },
            ["A clear feeder held to a window by three suckers, with a finch in it"],
            (
                "hedgerow-fair",
                """{"title":"Window feeder clear","tags":["window feeder"],"category":["Garden","Birds","Feeders"],"description":"See birds close by."}"""
            ),
            (
                "longbarrow",
                """{"title":"Bird Feeder Window Bird Feeder Bird Feeder for Window Bird Feeders Clear Bird Feeder Large Bird Feeder","bullets":["See birds close by"],"backend":"bird feeder window bird feeder","description":"Window feeder."}"""
            )
        );

    private static ProductRow BatBox(DateTime at) =>
        Product(
            at,
            "Bat box",
            new()
            {
                What = "bat box",
                Materials = ["larch"],
                Properties = ["handmade"],
                Colours = ["natural", "black"],
                Sizes = ["large"],
                Audiences = ["gardeners"],
            },
            ["A narrow larch bat box under the eaves of a barn"],
            (
                "hedgerow-fair",
                """{"title":"Bat box, larch bat house for outside, large bat roost","tags":["bat box","bat house","larch bat box","wildlife gift"],"category":["Garden","Bats","Bat boxes"],"description":"Bats eat midges. This box gives up to forty of them a dry, rough place to sleep through the day."}"""
            ),
            ("longbarrow", "{}")
        );

    private static ProductRow WallChart(DateTime at) =>
        Product(
            at,
            "Garden birds wall chart",
            new()
            {
                What = "bird chart",
                Materials = ["recycled paper"],
                Colours = ["cream", "green"],
                Sizes = ["A3", "A2"],
                Audiences = ["children", "teachers", "bird lovers"],
                Occasions = ["christmas", "birthday"],
            },
            ["Forty garden birds in watercolour on cream paper"],
            (
                "hedgerow-fair",
                """{"title":"Garden birds wall chart","tags":["bird chart","bird poster"],"category":["Home","Wall art"],"description":""}"""
            ),
            ("longbarrow", "{}")
        );

    private static ProductRow HeronShirt(DateTime at) =>
        Product(
            at,
            "Heron T-shirt",
            new()
            {
                What = "heron shirt",
                Materials = ["organic cotton"],
                Colours = ["grey", "sea green"],
                Sizes = ["S", "M", "L", "XL"],
                Audiences = ["women", "men", "bird lovers"],
                Occasions = ["birthday", "father's day"],
            },
            ["A grey heron in three strokes, printed on a sea green shirt"],
            (
                "overprint-lane",
                """{"title":"Heron","brand":"Plover and Pine heron heron heron","bullets":["A heron in three strokes of the brush"],"description":"Heron shirt.","tags":["heron","heron shirt","shirt heron","black heron shirt"]}"""
            )
        );

    private static ProductRow CountSheets(DateTime at) =>
        Product(
            at,
            "Bird-count sheets for classrooms",
            new()
            {
                What = "bird count sheet",
                Sizes = ["A4", "letter"],
                Audiences = ["children", "teachers"],
                Occasions = ["winter bird count"],
            },
            ["A page with twenty garden birds to colour and a box to tally each"],
            (
                "chalk-shelf",
                """{"title":"Bird sheets","description":"Printable sheets.","choices":{"Subject":"Science","Resource type":"Worksheets"}}"""
            )
        );

    private static ProductRow Cabin(DateTime at) =>
        Product(
            at,
            "Two-bed cabin with a hide",
            new()
            {
                What = "cabin",
                Materials = ["larch"],
                Sizes = ["two bedrooms"],
                Audiences = ["bird lovers", "couples", "families"],
            },
            ["The cabin across the reeds at first light", "The hide: a bench, a slot, a kettle"],
            (
                "marsh-and-moor",
                """{"title":"Lovely cabin in a lovely quiet place near the marsh","description":"A lovely place to stay.","amenities":{"Parking":"On site"}}"""
            )
        );

    private static ProductRow Product(
        DateTime at,
        string name,
        Facts facts,
        string[] pictures,
        params (string Platform, string Copy)[] listings
    )
    {
        var product = new ProductRow { Name = name, Facts = facts };
        product.Pictures.AddRange(pictures.Select((d, i) => new PictureRow { Description = d, Order = i }));
        foreach (var (platform, text) in listings)
            ListingEditor.Add(product, platform, at, ListingText.Of(text));
        return product;
    }
}
