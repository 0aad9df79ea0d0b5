namespace TinRabbit.Server.Undo;

/// <summary>Where a change is made, and undone by the key.</summary>
public enum Screen
{
    Dig,
    Pick,
    Write,
    Weigh,
    Watch,
    Pages,
    Listings,
    Settings,
}
