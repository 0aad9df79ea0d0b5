using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>A request that the demo shop does.</summary>
/// <param name="Operation">The id of the endpoint in the OpenAPI document.</param>
/// <param name="Address">Its path and query.</param>
/// <param name="Body">Its body as JSON; null where it has none.</param>
/// <param name="File">Its body as a file; null where it is none.</param>
public sealed record KnownRequest(string Operation, string Address, JsonNode? Body = null, byte[]? File = null);

/// <summary>One good request for each endpoint, in an order in which each finds what it needs: what a fuzz mutates gets past the door.</summary>
/// <param name="client">Asks the demo shop for numbers and revisions.</param>
public sealed class KnownRequests(HttpClient client)
{
    private const string Market = "hedgerow-fair-us";
    private const string Copy = """{"title":"Cedar wren nest box","tags":["nest box","wren house"],"description":"A box for wrens."}""";

    private const string Words =
        """{"id":"fuzzed","name":"F","fields":[{"key":"title","shape":"line","role":"title","indexed":true,"weight":0.8,"limit":{"max":60}},{"key":"back","shape":"words","role":"backend","indexed":true,"weight":0.3,"limit":{"max":60}},{"key":"tags","shape":"phrases","role":"tags","indexed":true,"weight":0.5,"limit":{"max":20,"maxItems":5}}],"search":{"folds":["plural"],"wordsCombine":true}}""";

    private static readonly byte[] Terms = "term,volume\nowl perch,40\nowl hide,many\n"u8.ToArray();

    private static readonly byte[] Picture = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAQAAAADCAIAAAA7ljmRAAAAEElEQVR4nGM4saUHjhhwcgDeVhhhdHCU8QAAAABJRU5ErkJggg=="
    );

    private static readonly byte[] Results =
        "<h1>1–2 of 12 results for “nest box”</h1><ul><li><a href=/a/1><h3>Cedar nest box for wrens</h3></a><p>$12.00</p></li><li><a href=/a/2><h3>Oak nest box with a lid</h3></a><p>$14.00</p></li></ul>"u8.ToArray();

    private async Task<JsonNode> Get(string path) => JsonNode.Parse(await client.GetStringAsync(path))!;

    private static KnownRequest Ask(string operation, string address, string? body = null) =>
        new(operation, address, body is null ? null : JsonNode.Parse(body));

    private static KnownRequest File(string operation, string address, byte[] file) => new(operation, address, null, file);

    private async Task<JsonNode> Uploaded(string path, byte[] file)
    {
        using var response = await client.PostAsync(path, new ByteArrayContent(file));
        return JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
    }

    private static int Id(JsonNode? row) => row!["id"]!.GetValue<int>();

    /// <summary>The requests. Whoever asks for the next one has sent the one before.</summary>
    public async IAsyncEnumerable<KnownRequest> All()
    {
        await foreach (var request in Reading())
            yield return request;
        await foreach (var request in Engine())
            yield return request;
        await foreach (var request in Shelf())
            yield return request;
        await foreach (var request in Products())
            yield return request;
        await foreach (var request in Listings())
            yield return request;
        await foreach (var request in Watch())
            yield return request;
        await foreach (var request in Rivals())
            yield return request;
        await foreach (var request in Pages())
            yield return request;
        await foreach (var request in Drops())
            yield return request;
        await foreach (var request in Changing())
            yield return request;
    }

    private async Task<int> Listing() => (await Get("/api/shop"))["products"]![0]!["listings"]!["hedgerow-fair"]!.GetValue<int>();

    private async IAsyncEnumerable<KnownRequest> Reading()
    {
        var listing = await Listing();
        foreach (
            var (operation, address) in new (string, string)[]
            {
                ("GetSession", "session"),
                ("DownloadLog", "log"),
                ("GetLeads", "leads"),
                ("GetIdeas", $"ideas/{Market}"),
                ("GetLanguages", "languages"),
                ("GetMovers", "movers?days=7"),
                ("GetBackups", "backups"),
                ("Suggest", $"markets/{Market}/suggest?typed=bird"),
                ("GetOwnTerms", $"markets/{Market}/ownterms"),
                ("GetListingsWithTerm", $"markets/{Market}/ownterms/listings?term=bird%20house"),
                ("GetLikeness", $"products/1/likeness?marketId={Market}"),
                ("Draw", "drawings?title=Cedar%20nest%20box"),
                ("GetSources", $"markets/{Market}/sources"),
                ("GetFilters", "filters"),
                ("GetMeasuring", "measuring"),
                ("GetImports", $"markets/{Market}/imports"),
                ("GetTerm", $"markets/{Market}/term?text=bird%20house"),
                ("GetCountries", $"markets/{Market}/countries?text=bird%20house"),
                ("GetAlike", $"markets/{Market}/alike?text=bird%20house"),
                ("GetGrid", $"products/1/grid/{Market}?head=house"),
                ("GetTrail", $"products/1/trail/{Market}"),
                ("GetLookUps", $"products/1/lookups/{Market}"),
                ("GetSite", "site"),
                ("GetPages", "pages"),
                ("GetRedirects", "pages/redirects.csv"),
                ("GetPictures", "pictures"),
                ("ExportShop", "shop/export.zip"),
                ("ExportHtml", "shop/html.zip"),
                ("ExportPagesCsv", "shop/pages.csv"),
                ("ExportPagesXlsx", "shop/pages.xlsx"),
                ("ExportSitemap", "shop/sitemap.xml"),
                ("GetPicks", $"products/1/picks?marketId={Market}"),
                ("GetPlatforms", "platforms"),
                ("ExportProfile", "platforms/longbarrow/profile.json"),
                ("ExportListings", "platforms/hedgerow-fair/listings.csv"),
                ("GetShop", "shop"),
                ("GetCountryChoices", "countries"),
                ("GetListings", "listings?country=us"),
                ("GetChanges", "changes?undone=true"),
                ("GetListing", $"listings/{listing}"),
                ("GetWatch", $"listings/{listing}/watch?marketId={Market}"),
                ("GetFound", $"listings/{listing}/checks?marketId={Market}"),
                ("ExportChecks", $"listings/{listing}/checks/export.csv?marketId={Market}"),
                ("ExportSheet", $"listings/{listing}/checks/sheet.csv?marketId={Market}"),
                ("GetHistory", $"listings/{listing}/history?marketId={Market}"),
                ("ExportFigures", $"listings/{listing}/figures/export.csv?marketId={Market}"),
                ("GetJournal", "notes"),
                ("ExportJournal", "notes/export.csv"),
                ("GetRules", $"listings/{listing}/rules?marketId={Market}"),
                ("GetWeights", $"listings/{listing}/rules/weights?marketId={Market}"),
                ("GetSampleData", "sample-data"),
                ("FindRivals", $"listings/{listing}/rivals/found?marketId={Market}"),
                ("ExportRivals", $"listings/{listing}/rivals/export.csv?marketId={Market}"),
                ("ExportReviews", $"listings/{listing}/reviews/export.csv"),
                ("GetPhrases", $"listings/{listing}/reviews/phrases?marketId={Market}"),
                ("GetVersions", $"listings/{listing}/versions"),
                ("GetSent", $"listings/{listing}/sent"),
                ("ExportCsv", $"listings/{listing}/export.csv"),
                ("ExportXlsx", $"listings/{listing}/export.xlsx"),
                ("ExportJson", $"listings/{listing}/export.json"),
            }
        )
            yield return Ask(operation, $"/api/{address}");
    }

    private static async IAsyncEnumerable<KnownRequest> Engine()
    {
        await Task.Yield();
        const string Wanted = """[{"text":"wren house","volume":90},{"text":"nest box","volume":40}]""";
        const string Of =
            $$"""{"platform":{{Words}},"fields":{"title":"Cedar nest box"},"terms":{{Wanted}},"lead":null,"facts":null,"avoid":[],""";
        yield return Ask("EngineFillWords", "/api/engine/fill/words", Of + "\"field\":\"back\"}");
        yield return Ask("EngineFillPhrases", "/api/engine/fill/phrases", Of + "\"field\":\"tags\"}");
        yield return Ask("EngineFillTitle", "/api/engine/fill/title", Of + "\"field\":\"title\"}");
        yield return Ask("EngineCheck", "/api/engine/check", Of + "\"pageKind\":null,\"shopName\":null}");
        yield return Ask("EngineMoves", "/api/engine/moves", Of + "\"most\":9}");
        yield return Ask(
            "EngineRead",
            "/api/engine/read",
            """{"platform":"longbarrow","text":"cedar wren house","marketId":"hedgerow-fair-us"}"""
        );
        yield return Ask(
            "EngineReadPage",
            "/api/engine/read-page",
            """{"html":"<ul><li><a href=/1>Owl box of larch</a> <b>£12.00</b></li><li><a href=/2>Wren box of cedar</a> <b>£9.50</b></li></ul>","shop":"Fen"}"""
        );
        yield return Ask("EngineShape", "/api/engine/shape", """{"months":[1,2,3,4,5,6,7,8,9,10,11,12],"from":"2025-01"}""");
        yield return Ask("EngineWeave", "/api/engine/weave", $$"""{"terms":{{Wanted}}}""");
        yield return Ask(
            "EngineWeigh",
            "/api/engine/weigh",
            $$"""{"platform":{{Words}},"fields":{"title":"Cedar nest box"},"terms":{{Wanted}}}"""
        );
        yield return Ask(
            "EngineBuyerPhrases",
            "/api/engine/phrases",
            """{"mine":[{"text":"A sturdy box","stars":5}],"theirs":[{"text":"The roof leaks","stars":2}]}"""
        );
        yield return Ask(
            "EngineCompare",
            "/api/engine/compare",
            """{"before":[1,2,3,4,5,6,7,8],"after":[2,3,4,5,6,7,8,9],"control":null}"""
        );
        yield return Ask(
            "EngineExplain",
            "/api/engine/explain",
            $$"""{"platform":{{Words}},"fields":{"title":"Cedar nest box"},"observed":[{"text":"nest boxes","found":true,"place":3}]}"""
        );
    }

    private async IAsyncEnumerable<KnownRequest> Shelf()
    {
        const string Of = $"/api/markets/{Market}";
        yield return Ask("GetShelf", $"{Of}/shelf", """{"has":"house","volumeFrom":1,"by":"volume","down":true,"skip":0,"take":5}""");
        yield return Ask("ExportShelf", $"{Of}/shelf/export.csv", """{"by":"volume","down":true,"skip":0,"take":5}""");
        yield return Ask(
            "ExportTable",
            "/api/tables/export.xlsx",
            """{"name":"Owls","heads":["Term","Grip"],"rows":[["owl ladder","60.5"]]}"""
        );
        yield return Ask("PasteTerms", $"{Of}/paste", """{"text":"owl ladder\t70\nowl porch\t30","source":"notes"}""");
        yield return Ask("MeasureTerms", $"{Of}/measure", """{"texts":["bird house"]}""");
        yield return Ask("ChooseSupply", $"{Of}/supply", """{"supply":"exactTitles"}""");
        yield return Ask(
            "CorrectReading",
            $"{Of}/correct",
            """{"text":"owl ladder","volume":50,"competition":7,"titlesHolding":null,"clickCost":null}"""
        );
        var readings = (await Get($"{Of}/term?text=owl%20ladder"))["readings"]!.AsArray();
        yield return Ask("UseReading", $"{Of}/readings/{Id(readings[^1])}/use");
        yield return Ask("RenameTerm", $"{Of}/terms/rename", """{"text":"owl porch","name":"owl stoop"}""");
        yield return Ask("DeleteTerms", $"{Of}/terms/delete", """{"texts":["owl stoop"]}""");
        yield return Ask("StopMeasuring", "/api/measuring/stop");
        yield return Ask("ResumeMeasuring", "/api/measuring/resume");
        yield return Ask("SaveFilter", "/api/filters", """{"name":"Roomy","filters":"headroom=60"}""");
        var filter = Id((await Get("/api/filters"))[0]);
        yield return Ask("RenameFilter", $"/api/filters/{filter}/name", """{"name":"Wide"}""");
        yield return Ask("DuplicateFilter", $"/api/filters/{filter}/duplicate", """{"name":"Wider"}""");
        yield return Ask("DeleteFilter", $"/api/filters/{filter}");
        yield return File("BeginImport", $"{Of}/imports?name=t.csv", Terms);
        var import = await Uploaded($"{Of}/imports?name=t.csv", Terms);
        var (file, look) = (import["id"]!.GetValue<string>(), import["look"]!.ToJsonString());
        yield return Ask("LookAtImport", $"{Of}/imports/{file}/look", $$"""{"look":{{look}},"encoding":null,"separator":null}""");
        yield return Ask("CountImportRows", $"{Of}/imports/{file}/rows", $$"""{"look":{{look}},"encoding":null,"separator":null}""");
        yield return Ask("RunImport", $"{Of}/imports/{file}/run", $$"""{"look":{{look}},"source":"Owls"}""");
        yield return Ask("GetBadRows", $"{Of}/imports/{file}/bad.csv");
        var done = Id((await Get($"{Of}/imports"))[0]);
        yield return Ask("RenameImport", $"{Of}/imports/{done}/source", """{"name":"More owls"}""");
        yield return Ask("UndoImport", $"{Of}/imports/{done}/undo");
        yield return Ask("ForgetImport", $"{Of}/imports/{file}");
    }

    private async IAsyncEnumerable<KnownRequest> Products()
    {
        yield return Ask(
            "TurnTerms",
            "/api/language",
            $$"""{"marketId":"{{Market}}","language":"es","texts":["bird house"],"column":null}"""
        );
        yield return Ask("Dig", "/api/products/1/dig", $$"""{"marketId":"{{Market}}","text":"owl box","parentId":null}""");
        var step = Id((await Get($"/api/products/1/trail/{Market}")).AsArray()[^1]);
        yield return Ask("DeleteStep", $"/api/products/1/trail/{step}");
        yield return Ask(
            "Pick",
            "/api/products/1/picks",
            """{"texts":["owl box"],"source":null,"fit":"good","home":"title","note":"For the barn","saidBy":[]}"""
        );
        yield return Ask("OrderPicks", "/api/products/1/picks/order", """{"keys":["owl box"]}""");
        yield return Ask("DropPicks", "/api/products/1/picks/drop", """{"texts":["owl box"]}""");
        var product = (await Get("/api/shop"))["products"]![0]!;
        yield return Ask(
            "SaveFacts",
            "/api/products/1/facts",
            $$"""{"facts":{"what":"nest box","materials":["cedar"],"colours":[],"sizes":[],"audiences":[],"occasions":[]},"revision":{{product["revision"]}}}"""
        );
        product = (await Get("/api/shop"))["products"]![0]!;
        yield return Ask("RenameProduct", "/api/products/1/name", $$"""{"name":"Wren nest box","revision":{{product["revision"]}}}""");
        yield return Ask(
            "SavePictures",
            "/api/products/1/pictures",
            $$"""{"pictures":["A box","A wren"],"revision":{{product["picturesRevision"]}}}"""
        );
        yield return Ask("AddProduct", "/api/products", """{"name":"Owl box","facts":null,"pictures":null,"platforms":["longbarrow"]}""");
        var added = Id((await Get("/api/shop"))["products"]!.AsArray()[^1]);
        yield return Ask("AddListing", $"/api/products/{added}/listings/overprint-lane");
        yield return Ask(
            "AddProduct",
            "/api/products",
            """{"name":"Idea","platforms":["longbarrow"],"picks":["owl ladder"],"isIdea":true}"""
        );
        yield return Ask(
            "MakeProduct",
            $"/api/products/{Id((await Get("/api/shop"))["products"]!.AsArray()[^1])}/become",
            """{"name":"Owl ladder"}"""
        );
        yield return Ask(
            "Judge",
            "/api/products/1/likeness",
            $$"""{"marketId":"{{Market}}","term":"bird house","result":"Cedar nest box","isLike":true}"""
        );
        yield return Ask("DuplicateProduct", "/api/products/1/duplicate", """{"name":"Another box"}""");
        yield return Ask("SetOwnWord", "/api/shop/words", """{"word":"barn","facet":"style","forget":false}""");
        yield return Ask(
            "SaveShop",
            "/api/shop",
            """{"name":"Another shop","currency":"EUR","countries":["pt","us","gb"],"language":"pt"}"""
        );
        yield return Ask("AddPlatform", "/api/platforms", $$"""{"profile":{{Words}},"like":"longbarrow"}""");
        yield return Ask("CheckProfile", "/api/platforms/check", $$"""{"profile":{{Words}},"like":null}""");
        yield return Ask(
            "SavePlatform",
            "/api/platforms/fuzzed",
            $$"""{"profile":{{Words.Replace("\"F\"", "\"G\"", StringComparison.Ordinal)}},"like":null,"revision":0}"""
        );
        yield return Ask("DeletePlatform", "/api/platforms/fuzzed");
    }

    private async IAsyncEnumerable<KnownRequest> Listings()
    {
        var listing = await Listing();
        var of = $"/api/listings/{listing}";
        const string Draft = $$"""{"marketId":"{{Market}}","fields":{{Copy}},""";
        const string Only = $$"""{"marketId":"{{Market}}","fields":{{Copy}}}""";
        var pick = (await Get($"/api/products/1/picks?marketId={Market}"))["picks"]![0]!["key"]!.GetValue<string>();
        yield return Ask("SendListing", $"{of}/send", $$"""{"marketId":"{{Market}}"}""");
        yield return Ask("WeighListing", $"{of}/weigh", Only);
        yield return Ask("ExplainTerm", $"{of}/weigh/explain", $"{Draft}\"key\":\"{pick}\"}}");
        yield return Ask("FindMoves", $"{of}/moves", Only);
        yield return Ask("FindPickWords", $"{of}/words", Only);
        yield return Ask("FindNext", $"{of}/next", Only);
        yield return Ask("PutOff", $"{of}/next/putoff", """{"kind":"publish"}""");
        yield return Ask("FindPlaces", $"{of}/places", $$"""{"marketId":"{{Market}}","fields":{{Copy}},"texts":["wren house"]}""");
        yield return Ask("CompareWithTop", $"{of}/top", $"{Draft}\"term\":\"bird house\"}}");
        yield return Ask(
            "CompareProductPlatforms",
            "/api/products/1/platforms",
            $$"""{"country":"us","listingId":{{listing}},"fields":{{Copy}}}"""
        );
        var other = (await Get("/api/shop"))["products"]![0]!["listings"]!["longbarrow"]!.GetValue<int>();
        yield return Ask("PreviewBring", $"{of}/bring", $"{Draft}\"from\":{other}}}");
        yield return Ask("FillField", $"{of}/fill/tags", Only);
        yield return Ask(
            "PutPieces",
            $"/api/listings/{other}/fill/backend/pieces",
            """{"marketId":"longbarrow-us","fields":null,"pieces":["owl","box"]}"""
        );
        yield return Ask("ReadText", $"{of}/read", $"{Draft}\"text\":\"cedar wren house\"}}");
        yield return Ask("CheckListing", $"{of}/check", Only);
        yield return Ask("PutAside", $"{of}/asides", """{"key":"unused backend","aside":true}""");
        yield return Ask("SetLead", $"{of}/lead", $$"""{"key":"{{pick}}"}""");
        yield return Ask("KeepTake", $"{of}/takes", """{"text":"A box for wrens"}""");
        yield return Ask("GetTakes", $"{of}/takes/weighed", Only);
        using var takes = await client.PostAsJsonAsync($"{of}/takes/weighed", JsonNode.Parse(Only));
        var take = Id(JsonNode.Parse(await takes.Content.ReadAsStringAsync())!.AsArray()[^1]);
        yield return Ask("RenameTake", $"{of}/takes/{take}/name", """{"name":"Short"}""");
        yield return Ask("DeleteTake", $"{of}/takes/{take}");
        yield return Ask("KeepVersion", $"{of}/versions", """{"name":"Best"}""");
        var revision = (await Get(of))["revision"];
        yield return Ask("SaveCopy", $"{of}/copy", $$"""{"fields":{{Copy}},"revision":{{revision}},"keep":"byHand"}""");
        yield return Ask("KeepVersion", $"{of}/versions", """{"name":"Next"}""");
        var versions = (await Get($"{of}/versions")).AsArray().Select(Id).ToList();
        yield return Ask("CompareVersions", $"{of}/versions/compare", $$"""{"from":{{versions[^1]}},"to":{{versions[0]}},"fields":null}""");
        yield return Ask("RenameVersion", $"{of}/versions/{versions[0]}", """{"name":"Worst"}""");
        yield return Ask("DeleteVersion", $"{of}/versions/{versions[0]}");
        const string Edit =
            """{"ids":[1],"kind":"replace","find":"box","replacement":"case","matchesCase":false,"wholeWords":true,"roles":[],"country":"us"}""";
        yield return Ask("PreviewEdit", "/api/listings/edit/preview", Edit);
        using var preview = await client.PostAsJsonAsync("/api/listings/edit/preview", JsonNode.Parse(Edit));
        var change = JsonNode.Parse(await preview.Content.ReadAsStringAsync())!["changes"]![0]!;
        var revisions = new JsonObject { [$"{change["listingId"]}"] = change["revision"]!.DeepClone() };
        yield return Ask(
            "ApplyEdit",
            "/api/listings/edit",
            $$"""{"edit":{{Edit}},"keys":["{{change["key"]}}"],"revisions":{{revisions.ToJsonString()}}}"""
        );
        yield return Ask("WeighListings", "/api/listings/scores", """{"country":"us"}""");
        yield return Ask("ArchiveListings", "/api/listings/archive", $$"""{"ids":[{{listing}}],"isArchived":false}""");
        var live = (await Get("/api/shop"))["products"]![1]!["listings"]!["longbarrow"]!.GetValue<int>();
        yield return Ask("MarkAsLive", $"/api/listings/{live}/live", """{"marketId":"longbarrow-us","since":"2026-11-02"}""");
    }

    private async IAsyncEnumerable<KnownRequest> Watch()
    {
        var of = $"/api/listings/{await Listing()}";
        yield return Ask("SaveWatch", $"{of}/watch", $$"""{"marketId":"{{Market}}","checksDaily":true,"pageSize":50}""");
        yield return File(
            "ImportChecks",
            $"{of}/checks/import?marketId={Market}&name=c.csv",
            "term,found,rank\nowl box,yes,3\n"u8.ToArray()
        );
        var found = await Get($"{of}/checks?marketId={Market}");
        yield return Ask("UnfollowTerms", $"{of}/checks/unfollow", $$"""{"terms":[{{Id(found["terms"]!.AsArray()[^1])}}]}""");
        yield return Ask("BeginCheck", $"{of}/checks", $$"""{"marketId":"{{Market}}","terms":["bird house"]}""");
        var check = Id((await Get($"{of}/checks?marketId={Market}"))["checks"]![0]);
        yield return Ask("GetCheck", $"{of}/checks/{check}");
        yield return Ask("StopCheck", $"{of}/checks/{check}/stop");
        yield return Ask("ResumeCheck", $"{of}/checks/{check}/resume");
        yield return Ask("DeleteCheck", $"{of}/checks/{check}");
        yield return Ask("AddNote", "/api/notes", """{"text":"Free postage","kinds":["promotion"],"day":"2026-10-01"}""");
        var note = (await Get("/api/notes?has=postage"))["notes"]![0]!;
        yield return Ask(
            "SaveNote",
            $"/api/notes/{note["id"]}",
            $$"""{"text":"Postage","kinds":["price"],"day":"2026-10-02","revision":{{note["revision"]}}}"""
        );
        yield return Ask("GetNoteChanges", $"/api/notes/{note["id"]}/changes");
        yield return Ask("GetNoteRanks", $"/api/notes/{note["id"]}/ranks");
        yield return Ask("DeleteNote", $"/api/notes/{note["id"]}");
        yield return Ask("KeepSampleData", "/api/sample-data/keep");
    }

    private async IAsyncEnumerable<KnownRequest> Rivals()
    {
        var of = $"/api/listings/{await Listing()}/rivals";
        var reviews = $"/api/listings/{await Listing()}/reviews";
        var top = (await Get($"{of}/found?marketId={Market}"))["results"]!.AsArray();
        var id = top.First(r => !r!["id"]!.GetValue<string>().StartsWith("own:", StringComparison.Ordinal))!["id"]!.GetValue<string>();
        yield return Ask("AddRivals", of, $$"""{"marketId":"{{Market}}","ids":["{{id}}"]}""");
        yield return Ask(
            "PasteRival",
            $"{of}/paste",
            $$"""{"marketId":"{{Market}}","shop":"Fen","fields":{"title":"Owl box"},"price":12.5}"""
        );
        yield return Ask("CompareRivals", $"{of}/compare", $$"""{"marketId":"{{Market}}","fields":{{Copy}}}""");
        using var compared = await client.PostAsJsonAsync($"{of}/compare", JsonNode.Parse($$"""{"marketId":"{{Market}}","fields":null}"""));
        var rival = Id(JsonNode.Parse(await compared.Content.ReadAsStringAsync())!["rivals"]![0]);
        yield return Ask("ReadRival", $"{of}/{rival}/text?marketId={Market}");
        yield return Ask("ReadResult", $"{of}/found/text?marketId={Market}&term=nest%20box&rank=1");
        yield return Ask("PassRival", $"{of}/{rival}/pass", $$"""{"marketId":"{{Market}}","fields":{{Copy}}}""");
        yield return Ask("RefreshRivals", $"{of}/refresh", $$"""{"marketId":"{{Market}}"}""");
        yield return Ask("FetchReviews", $"{reviews}/fetch", $$"""{"marketId":"{{Market}}"}""");
        yield return Ask("RemoveReviews", $"{reviews}?ofRivals=false");
        yield return Ask("RemoveRival", $"{of}/{rival}");
    }

    private async IAsyncEnumerable<KnownRequest> Pages()
    {
        var pages = (await Get("/api/pages"))["pages"]!.AsArray();
        var content = pages.First(p => p!["kind"]!.GetValue<string>() == "content" && !p["isHome"]!.GetValue<bool>())!;
        var category = Id(pages.First(p => p!["kind"]!.GetValue<string>() == "category"));
        var product = Id(pages.First(p => p!["kind"]!.GetValue<string>() == "product"));
        var draft = $$"""{"marketId":"web-us","fields":{"heading":"Bird houses","body":"<p>For wrens.</p>"}""";
        yield return Ask("SetPageLead", $"/api/pages/{Id(content)}/lead", """{"text":"owl care"}""");
        yield return Ask("ExportPage", $"/api/pages/{Id(content)}/page.html");
        yield return Ask("PreviewPage", $"/api/pages/{Id(content)}/preview");
        yield return Ask("GetPageFigures", $"/api/listings/{content["listingId"]}/page", draft + "}");
        yield return Ask(
            "PutModifier",
            $"/api/listings/{content["listingId"]}/page/modifier",
            draft + ",\"word\":\"cedar\",\"head\":\"houses\"}"
        );
        yield return Ask("AddPage", "/api/pages", """{"kind":"content","name":"Owls","parentId":null,"productId":null}""");
        yield return Ask("PreviewOutline", "/api/pages/outline/preview", """{"text":"Hides\n  For two\n","parentId":null}""");
        yield return Ask("AddOutline", "/api/pages/outline", """{"text":"Hides\n  For two\n","parentId":null}""");
        yield return Ask("MovePage", $"/api/pages/{Id(content)}/place", $$"""{"parentId":{{category}},"order":0}""");
        yield return Ask(
            "ChangePage",
            $"/api/pages/{Id(content)}",
            """{"kind":null,"inMenu":true,"isPublished":null,"hasSuffix":null,"isHome":null}"""
        );
        yield return Ask("SetCategories", $"/api/pages/{product}/categories", $$"""{"primary":{{category}},"others":[]}""");
        yield return Ask("GetDeletion", $"/api/pages/{Id(content)}/deletion");
        yield return Ask("DeletePage", $"/api/pages/{Id(content)}/delete", """{"children":false,"links":true}""");
        var site = await Get("/api/site");
        yield return Ask(
            "SaveSite",
            "/api/site",
            $$"""{"brand":"Fen","address":"https://fen.example","language":"en","country":"us","titleSuffix":" | Fen","revision":{{site["revision"]}}}"""
        );
        yield return Ask("PreviewAltFill", "/api/pictures/fill/preview", """{"pattern":"{name} in use","scope":"all","selected":[]}""");
        yield return Ask("FillAltTexts", "/api/pictures/fill", """{"pattern":"{name} in use","scope":"all","selected":[]}""");
        yield return Ask("SetPictureShows", "/api/pictures/1/0/shows", """{"shows":"A wren at the hole"}""");
        yield return Ask("LockAltText", "/api/pictures/1/0/locked", """{"isLocked":true}""");
        yield return File("AddPictureFile", "/api/pictures/1", Picture);
        var table = "product,platform,title\nOwl box,hedgerow-fair,Owl box\n"u8.ToArray();
        yield return File("BeginShopImport", "/api/shop/imports?name=t.csv", table);
        var import = await Uploaded("/api/shop/imports?name=t.csv", table);
        yield return Ask("RunShopImport", $"/api/shop/imports/{import["id"]}/run", """{"keys":["listing 0 hedgerow-fair"]}""");
        yield return Ask("ForgetShopImport", $"/api/shop/imports/{import["id"]}");
    }

    private async IAsyncEnumerable<KnownRequest> Drops()
    {
        yield return File("UploadDrop", "/api/drops?name=page.html", Results);
        var file = (await Uploaded("/api/drops?name=page.html", Results))["files"]![0]!["id"];
        yield return Ask("PreviewDrops", "/api/drops/preview", $$"""{"files":["{{file}}"],"marketId":"{{Market}}"}""");
        yield return Ask("AddDrops", "/api/drops/add", $$"""{"files":["{{file}}"],"marketId":"{{Market}}"}""");
        var other = (await Uploaded("/api/drops?name=page.html", Results))["files"]![0]!["id"];
        yield return Ask("ForgetDrop", $"/api/drops/{other}");
    }

    private static async IAsyncEnumerable<KnownRequest> Changing()
    {
        await Task.Yield();
        yield return Ask("TurnChange", "/api/changes/undo?sure=true");
        yield return Ask("MoveClock", "/api/clock", """{"days":1}""");
        yield return Ask("LogIn", "/api/session", """{"password":"not asked for here"}""");
        yield return Ask("LogOut", "/api/session");
    }
}
