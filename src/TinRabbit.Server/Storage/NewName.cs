using System.ComponentModel.DataAnnotations;
using TinRabbit.Core;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server.Storage;

/// <summary>A new name for something.</summary>
public sealed record NewName([MaxLength(Bounds.NameLength)] string Name)
{
    /// <summary>The name without spaces around it.</summary>
    /// <exception cref="FormatProblems">It is empty.</exception>
    public string Checked() => Name.Trim() is { Length: > 0 } name ? name : throw new FormatProblems([new("name", "Enter a name.")]);
}
