using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Weigh;

/// <summary>Weighs after a start, so that the first keys of the day do not wait for the weighing to be compiled.</summary>
internal static class WarmUp
{
    // The runtime compiles anew, and better, what was called thirty times.
    private const int Times = 40;

    /// <summary>Asks for a listing's weight as the screen does, its own text and none in turn; changes nothing.</summary>
    /// <param name="db">The shop; without a listing that has picks there is nothing to do.</param>
    /// <param name="marketId">Any market.</param>
    /// <param name="address">Where the server listens.</param>
    /// <param name="stop">Stops it.</param>
    public static async Task Weigh(TinContext db, string marketId, string address, CancellationToken stop)
    {
        if (
            await db
                .Listings.Where(l => db.Picks.Any(p => p.ProductId == l.ProductId))
                .Select(l => new { l.Id, l.Copy })
                .FirstOrDefaultAsync(stop)
            is not { } listing
        )
            return;
        using var http = new HttpClient { BaseAddress = new(address) };
        string? since = null;
        for (var i = 0; i < Times; i++)
        {
            var asked = new
            {
                marketId,
                fields = Listings.Parse(i % 2 == 0 ? listing.Copy : "{}"),
                since,
            };
            using var answer = await http.PostAsJsonAsync($"/api/listings/{listing.Id}/weigh", asked, stop);
            since = (await answer.Content.ReadFromJsonAsync<JsonElement>(stop)).GetProperty("id").GetString();
        }
    }
}
