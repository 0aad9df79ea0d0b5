namespace TinRabbit.Server.Storage;

/// <summary>What a change can be about, besides picks.</summary>
public enum Entity
{
    Shop,
    Product,
    Listing,
    Platform,
    Term,
    Import,
    Step,
    Take,
    Version,
    Filter,
    Page,
    Site,
    Rival,
    Review,
    Check,
    FollowedTerm,
    Figures,
    Note,
}
