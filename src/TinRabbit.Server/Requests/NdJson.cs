using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace TinRabbit.Server.Requests;

/// <summary>An answer that goes on for a while: one JSON value a line (NDJSON), each sent as soon as it is there.</summary>
internal sealed class NdJson<T>(IAsyncEnumerable<T> lines) : IResult
{
    private static readonly byte[] End = "\n"u8.ToArray();

    /// <summary>Writes lines as they come. Where the market fails after the first, the last line tells why there are no more.</summary>
    public async Task ExecuteAsync(HttpContext httpContext)
    {
        var (response, stop) = (httpContext.Response, httpContext.RequestAborted);
        var json = httpContext.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        response.ContentType = "application/x-ndjson";
        try
        {
            await foreach (var line in lines.WithCancellation(stop))
                await Write(line);
        }
        catch (MarketException e) when (response.HasStarted)
        {
            await Write(new { problem = e.Message });
        }

        async Task Write<TLine>(TLine line)
        {
            await JsonSerializer.SerializeAsync(response.Body, line, json, stop);
            await response.Body.WriteAsync(End, stop);
            await response.Body.FlushAsync(stop);
        }
    }
}
