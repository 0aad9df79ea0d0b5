using TinRabbit.Core.Measures;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Shop;

/// <summary>The made-up shop of the demo. Its listings need work, each in a way that sellers know.</summary>
internal static class Demo
{
    public static ShopRow Shop()
    {
        var shop = new ShopRow { Name = "Plover & Pine" };
        shop.Products.AddRange([NestBox(), WindowFeeder(), BatBox(), WallChart()]);
        return shop;
    }

    /// <summary>Terms dug in every market before the first visit, so that the shelf has something to compare with.</summary>
    public static readonly string[] Heads = ["bird house", "nest box", "bird feeder", "bat box", "bird chart", "bird lover gift", "casa para pájaros"];

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
        ("bird house for outside", Fit.Good, Home.Body, "bird house"),
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

    private static ProductRow NestBox() => Product(
        "Wren nest box, cedar",
        new() { What = "nest box", Materials = ["western red cedar", "brass"], Colours = ["natural"], Sizes = ["small", "28 mm hole"], Audiences = ["gardeners", "bird lovers"], Occasions = ["birthday", "housewarming"] },
        ["A small cedar nest box with a brass plate, on an apple tree", "A wren looking out of the round door"],
        ("hedgerow-fair", """
            {"title":"Cedar wren nest box, small bird house for garden, 28mm hole wren houses, bird lover gift",
             "tags":["cedar nest box","wren nest box","wren house","bird lover gift","wooden bird house","garden bird box","white nesting box","Plover and Pine","house"],
             "materials":["western red cedar","brass screws"],
             "category":["Garden","Birds","Nest boxes"],
             "attributes":{"Hole size":"28 mm","Made from":"cedar"},
             "description":"A snug house for the smallest bird in the garden: our cedar nest box has the 28 mm door that wrens like and blue tits respect. Left plain, it turns silver in a year and needs no paint.\n\nThe front swings open on two brass screws, so that last year's nest can be taken out in autumn. The roof slopes, the floor drains, and the wood is the right thickness to keep eggs warm in a cold April. Each one is cut and put together by the two of us in a shed with a view of the marsh."}
            """),
        ("longbarrow", """
            {"title":"Plover & Pine Cedar Nest Box for Wrens",
             "bullets":["CEDAR: Western red cedar weathers to silver and needs no paint","FOR WRENS: 28 mm hole keeps larger birds out","EASY TO CLEAN: The front opens on two brass screws"],
             "backend":"cedar nest box wren nest box cedar wren box",
             "description":"A nest box for wrens."}
            """));

    private static ProductRow WindowFeeder() => Product(
        "Window feeder",
        new() { What = "window bird feeder", Materials = ["acrylic", "oak"], Colours = ["clear"], Sizes = ["large"], Audiences = ["children", "bird lovers"], Occasions = ["mother's day", "birthday"] },
        ["A clear feeder held to a window by three suckers, with a finch in it"],
        ("hedgerow-fair", """{"title":"Window feeder clear","tags":["window feeder"],"category":["Garden","Birds","Feeders"],"description":"See birds close by."}"""),
        ("longbarrow", """{"title":"Bird Feeder Window Bird Feeder Bird Feeder for Window Bird Feeders Clear Bird Feeder Large Bird Feeder","bullets":["See birds close by"],"backend":"bird feeder window bird feeder","description":"Window feeder."}"""));

    private static ProductRow BatBox() => Product(
        "Bat box",
        new() { What = "bat box", Materials = ["larch"], Colours = ["natural", "black"], Sizes = ["large"], Audiences = ["gardeners"] },
        ["A narrow larch bat box under the eaves of a barn"],
        ("hedgerow-fair", """{"title":"Bat box, larch bat house for outside, large bat roost","tags":["bat box","bat house","larch bat box","wildlife gift"],"category":["Garden","Wildlife","Bat boxes"],"description":"Bats eat midges. This box gives up to forty of them a dry, rough place to sleep through the day."}"""),
        ("longbarrow", "{}"));

    private static ProductRow WallChart() => Product(
        "Garden birds wall chart",
        new() { What = "bird chart", Materials = ["recycled paper"], Colours = ["cream", "green"], Sizes = ["A3", "A2"], Audiences = ["children", "teachers", "bird lovers"], Occasions = ["christmas", "birthday"] },
        ["Forty garden birds in watercolour on cream paper"],
        ("hedgerow-fair", """{"title":"Garden birds wall chart","tags":["bird chart","bird poster"],"category":["Art","Prints"],"description":""}"""),
        ("longbarrow", "{}"));

    private static ProductRow Product(string name, Facts facts, string[] pictures, params (string Platform, string Copy)[] listings)
    {
        var product = new ProductRow { Name = name, Facts = facts };
        product.Pictures.AddRange(pictures.Select((d, i) => new PictureRow { Description = d, Order = i }));
        product.Listings.AddRange(listings.Select(l => new ListingRow { PlatformId = l.Platform, Copy = System.Text.Json.Nodes.JsonNode.Parse(l.Copy)!.ToJsonString(), SavedAt = DateTime.UtcNow }));
        return product;
    }
}
