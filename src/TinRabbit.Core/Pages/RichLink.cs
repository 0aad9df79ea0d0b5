namespace TinRabbit.Core.Pages;

/// <summary>A link in a page's body.</summary>
/// <param name="Address">Where it leads; <c>page:12</c> leads to a page of the shop.</param>
/// <param name="Text">What it is called.</param>
public sealed record RichLink(string Address, string Text)
{
    /// <summary>How an address that leads to a page of the shop begins; the page's id follows.</summary>
    public const string PagePrefix = "page:";

    /// <summary>The page of the shop that it leads to; null for any other address.</summary>
    public int? PageId =>
        Address.StartsWith(PagePrefix, StringComparison.Ordinal) && int.TryParse(Address.AsSpan(PagePrefix.Length), out var id) ? id : null;

    /// <summary>The pages of the shop that a body links to, in order.</summary>
    public static IEnumerable<int> PagesIn(string body) =>
        body.Contains(PagePrefix, StringComparison.Ordinal) ? RichBody.Read(body).Links.Select(l => l.PageId).OfType<int>() : [];
}
