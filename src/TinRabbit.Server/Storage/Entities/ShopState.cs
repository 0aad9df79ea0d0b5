namespace TinRabbit.Server.Storage;

/// <summary>What a change to several pages, texts and pictures takes back.</summary>
public sealed record ShopState(IReadOnlyList<PageState> Pages, IReadOnlyList<TextState> Texts, IReadOnlyList<PictureState> Pictures)
{
    /// <summary>Products that it added, with their listings and pages.</summary>
    public IReadOnlyList<int> Added { get; init; } = [];
}
