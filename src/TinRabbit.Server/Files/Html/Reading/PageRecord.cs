using AngleSharp.Dom;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>A part of a page that is one of several alike: a listing among results.</summary>
/// <param name="Roots">Its elements, in order; several where nothing is around them.</param>
internal sealed record PageRecord(IReadOnlyList<IElement> Roots)
{
    private string? _text;
    private string? _title;

    public PageRecord(IElement root)
        : this([root]) { }

    /// <summary>All that it says, in one line.</summary>
    public string Text => _text ??= Visible.Line(string.Join(' ', Roots.Select(r => Visible.Text(r))));

    /// <summary>Its title; empty where it has none.</summary>
    public string Title => _title ??= RecordReader.TitleOf(this);

    /// <summary>Whether a price stands in it.</summary>
    public bool HasPrice => PriceText.In(Text.Length > 2_000 ? Text[..2_000] : Text).Any();
}
