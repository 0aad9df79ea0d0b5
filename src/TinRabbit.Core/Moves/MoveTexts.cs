using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>What moves do, in words.</summary>
public static class MoveTexts
{
    /// <summary>What a move does, as a sentence without its full stop.</summary>
    /// <param name="move">The move.</param>
    /// <param name="field">The field that it changes.</param>
    /// <param name="before">The item that it changes; empty where there is none.</param>
    public static string Of(Move move, Field field, string before)
    {
        var (label, text, isTag) = (field.Label.ToLowerInvariant(), $"“{move.Text}”", field.Role == "tags");
        return move.Kind switch
        {
            MoveKind.Front => $"Start the {label} with {text}",
            MoveKind.Whole => $"Write {text} as an exact phrase in {label}",
            MoveKind.Add => isTag ? $"Add the tag {text}" : $"Add {text} to the {label}",
            MoveKind.Exchange => isTag ? $"Replace the tag “{before}” with {text}" : $"Replace a phrase of the {label} with {text}",
            MoveKind.Words => $"Add {text} to {label}, to be found for “{move.Pick}”",
            MoveKind.Attribute => $"Set {move.Text}, to be found for “{move.Pick}”",
            _ => $"Remove the repeated word {text} from the {label}",
        };
    }
}
