namespace TinRabbit.Core.Pages;

/// <summary>What a page of the seller's own web shop is for.</summary>
public enum PageKind
{
    /// <summary>It sells one product.</summary>
    Product,

    /// <summary>It lists products that belong together.</summary>
    Category,

    /// <summary>It answers a question or tells something.</summary>
    Content,
}
