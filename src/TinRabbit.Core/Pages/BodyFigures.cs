using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>Figures of a page's body.</summary>
/// <param name="Words">Words of its text.</param>
/// <param name="LeadUses">How often the lead occurs, exactly or in another form; 0 without a lead.</param>
/// <param name="LeadInFirst">Whether it occurs in the first paragraph.</param>
/// <param name="Outline">The headings in order.</param>
public sealed record BodyFigures(int Words, int LeadUses, bool LeadInFirst, IReadOnlyList<RichBlock> Outline)
{
    /// <summary>Occurrences of the lead per 100 words; 0 for an empty body.</summary>
    public double LeadRate => Words == 0 ? 0 : 100.0 * LeadUses / Words;

    /// <summary>Counts a body.</summary>
    /// <param name="platform">Whose search decides which forms are the same word.</param>
    /// <param name="body">The body.</param>
    /// <param name="lead">The page's lead; null where none is chosen.</param>
    /// <param name="stop">Stops the count.</param>
    public static BodyFigures Of(Platform platform, RichBody body, string? lead, CancellationToken stop = default) =>
        new(
            body.Blocks.Sum(b => Tokens.Of(b.Text).Count),
            lead is null ? 0 : body.Blocks.Sum(b => Uses(platform, b.Text, lead, stop)),
            lead is not null && body.FirstParagraph is { } first && Uses(platform, first, lead, stop) > 0,
            [.. body.Blocks.Where(b => b.Level > 0)]
        );

    /// <summary>How often a text has a term, exactly or in another form.</summary>
    internal static int Uses(Platform platform, string text, string term, CancellationToken stop) =>
        Weigher.Weigh(platform.OfOneText(), Platform.CopyOf(text), [new(term)], stop).Terms[0]
            is { Grade: Grade.Whole or Grade.Inflected } held
            ? held.Explain().Spans.Count
            : 0;
}
