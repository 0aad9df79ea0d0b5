using TinRabbit.Core.Platforms;

namespace TinRabbit.Market;

/// <summary>A listing that a seller sends.</summary>
/// <param name="Id">The seller's own number for it: the same number replaces what was sent before.</param>
/// <param name="Shop">The shop's name.</param>
/// <param name="Copy">Its fields.</param>
public sealed record Sending(string Id, string Shop, IReadOnlyDictionary<string, FieldValue> Copy)
{
    /// <summary>The ID under which a market knows a listing that was sent with this number.</summary>
    public static string IdAtMarket(string id) => $"own:{id}";
}
