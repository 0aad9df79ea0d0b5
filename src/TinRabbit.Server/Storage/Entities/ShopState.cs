namespace TinRabbit.Server.Storage;

/// <summary>What a change to several pages, texts and pictures takes back.</summary>
public sealed record ShopState(IReadOnlyList<PageState> Pages, IReadOnlyList<TextState> Texts, IReadOnlyList<PictureState> Pictures);
