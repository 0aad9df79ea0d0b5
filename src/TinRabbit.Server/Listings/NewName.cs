namespace TinRabbit.Server.Listings;

/// <summary>A new name for something.</summary>
public sealed record NewName([MaxLength(Bounds.NameLength)] string Name)
{
    /// <summary>The name without spaces around it.</summary>
    /// <exception cref="InvalidInputException">It is empty or too long.</exception>
    public string Checked() => Check(Name);

    /// <summary>A name without spaces around it.</summary>
    /// <exception cref="InvalidInputException">It is empty or too long.</exception>
    public static string Check(string given) =>
        given.Trim() is { Length: > 0 and <= Bounds.NameLength } name
            ? name
            : throw new InvalidInputException([new("name", $"Enter a name of at most {Bounds.NameLength} characters.")]);
}
