using TinRabbit.Core.Filling;

namespace TinRabbit.Server.Picks;

/// <summary>A pick that a suggestion does not use.</summary>
/// <param name="Text">The pick.</param>
/// <param name="Reason">Why.</param>
/// <param name="Claims">The words of it that the facts lack; empty for other reasons.</param>
public sealed record LeftOutView(string Text, LeftOutReason Reason, IReadOnlyList<Claim> Claims)
{
    public static IReadOnlyList<LeftOutView> Of(IReadOnlyList<LeftOut> picks) =>
        [.. picks.Select(l => new LeftOutView(l.Text, l.Reason, l.Claims))];
}
