using System.Text.Json;

namespace TinRabbit.Server.Requests;

/// <summary>Answers that go on for a while: one JSON value a line (NDJSON), each sent as soon as it is there.</summary>
internal static class NdJson
{
    private static readonly byte[] End = "\n"u8.ToArray();

    public static async Task WriteLine<T>(this HttpResponse response, T line, JsonSerializerOptions json, CancellationToken stop)
    {
        await JsonSerializer.SerializeAsync(response.Body, line, json, stop);
        await response.Body.WriteAsync(End, stop);
        await response.Body.FlushAsync(stop);
    }
}
