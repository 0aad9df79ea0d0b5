using System.Text.Json;
using TinRabbit.Market;

namespace TinRabbit.Server.Requests;

/// <summary>Answers that go on for a while: one JSON value a line (NDJSON), each sent as soon as it is there.</summary>
internal static class NdJson
{
    private static readonly byte[] End = "\n"u8.ToArray();

    /// <summary>Writes lines as they come. Where the market fails after the first, the last line tells why there are no more.</summary>
    public static async Task WriteLines<T>(
        this HttpResponse response,
        IAsyncEnumerable<T> lines,
        JsonSerializerOptions json,
        CancellationToken stop
    )
    {
        response.ContentType = "application/x-ndjson";
        try
        {
            await foreach (var line in lines.WithCancellation(stop))
                await response.WriteLine(line, json, stop);
        }
        catch (MarketException e) when (response.HasStarted)
        {
            await response.WriteLine(new { problem = e.Message }, json, stop);
        }
    }

    private static async Task WriteLine<T>(this HttpResponse response, T line, JsonSerializerOptions json, CancellationToken stop)
    {
        await JsonSerializer.SerializeAsync(response.Body, line, json, stop);
        await response.Body.WriteAsync(End, stop);
        await response.Body.FlushAsync(stop);
    }
}
