using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>The page of another seller's listing: it is recorded, and compared with one of the shop's where the seller wants that.</summary>
internal sealed class ListingDrop(TinContext db, IMarket market) : IDropKind
{
    public string Id => "listing";

    public string Name => "Another seller’s listing";

    public double? Fits(DropContent content) =>
        content.Page?.Listing is { Title.Length: > 0 } listing ? (IsMine(listing, content.Context) ? 0.3 : 0.8) : null;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var listing = thing.Content.Page!.Listing!;
        var compared = await thing.Listing(db, stop);
        var facts = new List<DropFact> { new("Title", listing.Title) };
        void Add(string name, string? text)
        {
            if (text is { Length: > 0 })
                facts.Add(new(name, text));
        }

        Add("Shop", listing.Shop);
        Add("Price", PriceText.Written(listing.Price, listing.Currency));
        Add(
            "Stars",
            listing.Rating is { } stars
                ? $"{stars.ToString("0.#", CultureInfo.InvariantCulture)}{(listing.Ratings is { } n ? $" from {n:#,0} ratings" : "")}"
                : null
        );
        Add("Bullet points", Count(listing.Bullets.Count));
        Add("Tags", string.Join(", ", listing.Tags));
        Add("Category", string.Join(" › ", listing.Category));
        Add("Attributes", Count(listing.Attributes.Count));
        Add("Description", listing.Description is { } text ? $"{Tokens.Of(text).Count:#,0} words" : null);
        Add("Pictures", Count(listing.Images.Count));
        return new(
            $"The listing “{listing.Title}”",
            facts,
            ["Review", "Stars", "Date"],
            [
                .. listing
                    .Reviews.Take(DropShown.MostRows)
                    .Select(r => new DropRow([
                        r.Text,
                        r.Stars?.ToString("0.#", CultureInfo.InvariantCulture) ?? "",
                        $"{r.Date:yyyy-MM-dd}",
                    ])),
            ],
            listing.Reviews.Count,
            [],
            ListingId: compared?.Id,
            NeedsListing: true,
            HasDay: true
        );

        static string? Count(int count) => count == 0 ? null : $"{count:#,0}";
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var (recordings, rivals, reviews) = (new List<RecordingRow>(), new List<RivalRow>(), new List<ReviewRow>());
        foreach (var thing in things)
        {
            var listing = thing.Content.Page!.Listing!;
            var result = SeenListing.Of(listing, null);
            recordings.Add(
                db.Recordings.Add(
                    new()
                    {
                        MarketId = thing.Market.Id,
                        Kind = RecordingKind.Listing,
                        Term = "",
                        Key = result.Id!,
                        Day = thing.Day,
                        Source = thing.Content.Source,
                        Page = thing.Content.Page!,
                    }
                ).Entity
            );
            await db.SaveChangesAsync(stop);
            if (await thing.Listing(db, stop) is not { } compared)
                continue;
            var rival = await db.Rivals.FirstOrDefaultAsync(
                r => r.ListingId == compared.Id && r.MarketId == thing.Market.Id && r.MarketListing == result.Id,
                stop
            );
            if (rival is null)
            {
                var state = RivalStates.Of(result, compared.Platform.Profile);
                rival = SavedRivals.Row(
                    compared.Id,
                    thing.Market.Id,
                    result.Id,
                    thing.Content.Source,
                    state,
                    db.Now,
                    market.TimeOf(thing.Day)
                );
                await SavedRivals.Add(db, compared.Id, [rival], stop);
                rivals.Add(rival);
            }

            reviews.AddRange(
                await Reviews.Add(db, compared.Id, true, rival.Id, GivenReview.Of(listing, market.LastDay), thing.Content.Source, stop)
            );
        }

        return
        [
            RemoveRows.Of<ReviewRow>(reviews.Select(r => r.Id)),
            RemoveRows.Of<RivalRow>(rivals.Select(r => r.Id)),
            RemoveRows.Of<RecordingRow>(recordings.Select(r => r.Id)),
        ];
    }

    private static bool IsMine(ReadListing listing, DropContext context) => PageReader.IsSame(listing.Shop, context.Shop);
}
