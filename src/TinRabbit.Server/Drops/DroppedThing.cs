namespace TinRabbit.Server.Drops;

/// <summary>Something that was dropped, and where and when it belongs.</summary>
/// <param name="Content">What it is.</param>
/// <param name="Choice">What the seller corrected of it.</param>
/// <param name="Market">The market.</param>
/// <param name="Day">The day that it was seen.</param>
/// <param name="PictureOf">The name among the shop's pictures of a picture that came with it, by the address that the page names; null where it did not come.</param>
internal sealed record DroppedThing(
    DropContent Content,
    DropChoice Choice,
    MarketPlace Market,
    DateOnly Day,
    Func<string, string?> PictureOf
);
