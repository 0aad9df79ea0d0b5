using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Pages;

/// <summary>What depends on the kind of a page.</summary>
public static class PageKinds
{
    /// <summary>Whether a listing must have a field: a category may be without a text.</summary>
    /// <param name="kind">The kind of page that it is; null for a marketplace listing.</param>
    /// <param name="field">The field.</param>
    public static bool Requires(this PageKind? kind, Field field) => field.Required && !(kind == PageKind.Category && field.Role == "body");
}
