using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Write;

/// <summary>What Write says: versions, sending, fills.</summary>
internal static class WriteMessages
{
    public const string RemovedLead = "Removed the lead";

    public static string SetLead(string term) => $"Set “{term}” as lead";

    public static string DismissedFinding(bool isBack) => isBack ? "Brought a dismissed finding back" : "Dismissed a finding";

    /// <summary>Why a version was saved, as words that follow “Saved”.</summary>
    public static string SavedBecause(VersionReason reason) =>
        reason switch
        {
            VersionReason.Pause => "after a pause",
            VersionReason.ByHand => "by hand",
            VersionReason.Sent => "when it was sent",
            VersionReason.Published => "when it was published",
            VersionReason.BulkEdit => "before a change to several listings",
            VersionReason.LinksRemoved => "before links were removed",
            VersionReason.Import => "before an import",
            VersionReason.PageAdded => "before it got a page",
            VersionReason.Undo => "before an undo",
            VersionReason.OtherWindow => "before another window’s text was replaced",
            VersionReason.BroughtOver => "before text was brought over",
            VersionReason.Moves => "before moves",
            VersionReason.Attribute => "before an attribute was filled",
            VersionReason.Move => "before a move",
            VersionReason.DerivedText => "before the derived text was used",
            VersionReason.Word => "before a word was inserted",
            VersionReason.Fill => "before a fill",
            VersionReason.Restore => "before a version was restored",
            VersionReason.Title => "before another title",
            VersionReason.Fix => "before a fix",
            _ => "by an older program",
        };

    public static string NoMarketToSendTo(string platform) =>
        $"{platform} has no connected market. Copy or export the listing, then mark it as published.";

    public const string NoMaterials = "This product’s facts list no materials. Add them under Pick › Facts.";
    public const string AllMaterials = "All materials from this product’s facts are here.";

    public static string RoomLeft(int picks, bool nothing, int offers) =>
        (
            picks == 0 ? "No picks yet."
            : nothing ? "No picks left that fit."
            : "No more picks fit."
        )
        + (
            offers == 0
                ? picks == 0
                    ? " Pick terms in Dig first."
                    : " Pick more terms in Dig to use the rest."
                : $" {offers:#,0} more {(offers == 1 ? "term" : "terms")} on your shelf would fit."
        );

    public static string MarkedLive(string product, DateOnly since) => $"Marked “{product}” as live since {since:yyyy-MM-dd}";
}
