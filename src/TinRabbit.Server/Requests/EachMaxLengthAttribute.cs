namespace TinRabbit.Server.Requests;

/// <summary>Each text of a list has at most this many characters.</summary>
[AttributeUsage(AttributeTargets.Parameter | AttributeTargets.Property)]
internal sealed class EachMaxLengthAttribute(int length) : Attribute
{
    public int Length { get; } = length;
}
