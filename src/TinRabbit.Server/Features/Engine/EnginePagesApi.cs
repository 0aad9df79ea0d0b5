using Microsoft.AspNetCore.Mvc;
using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Features.Engine;

/// <summary>A page that a seller saw.</summary>
/// <param name="Html">It as it was saved or copied; null where only text was copied.</param>
/// <param name="Text">Its text; it is read where there is no HTML.</param>
/// <param name="Shop">The seller's own shop, by which their listings are known.</param>
public sealed record ReadPageRequest(
    [MaxLength(PageReader.MostCharacters)] string? Html = null,
    [MaxLength(PageReader.MostCharacters)] string? Text = null,
    [MaxLength(Bounds.NameLength)] string? Shop = null
);

internal static class EnginePagesApi
{
    // A page of the most characters, each written in JSON as up to six bytes where it has to be.
    private const long MostBytes = 2L * PageReader.MostCharacters;

    // The reader stops itself before that, in words.
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    public static void MapEnginePages(this IEndpointRouteBuilder api) =>
        api.MapPost("/api/engine/read-page", EngineReadPage)
            .WithMetadata(new RequestSizeLimitAttribute(MostBytes))
            .WithRequestTimeout(Longest);

    private static Task<ReadPage> EngineReadPage(ReadPageRequest request, CancellationToken stop) =>
        Task.Run(() => PageReader.Read(request.Html, request.Text, request.Shop, stop), stop);
}
