namespace TinRabbit.Server.Picks;

/// <summary>A pick's values at one time.</summary>
public sealed record PickState(string Text, Fit Fit, Home Home, string Note, string Source, int Order)
{
    public string SaidBy { get; init; } = "";
    public string Language { get; init; } = "";
    public bool FitByHand { get; init; }

    public static PickState Of(PickRow pick) =>
        new(pick.Text, pick.Fit, pick.Home, pick.Note, pick.Source, pick.Order)
        {
            SaidBy = pick.SaidBy,
            Language = pick.Language,
            FitByHand = pick.FitByHand,
        };

    /// <summary>Gives a pick these values; the revision of its note moves on where the note is another.</summary>
    public void ApplyTo(PickRow pick)
    {
        pick.NoteRevision += pick.Note == Note ? 0 : 1;
        (pick.Text, pick.Fit, pick.Home, pick.Note) = (Text, Fit, Home, Note);
        (pick.Source, pick.Order, pick.SaidBy, pick.Language) = (Source, Order, SaidBy, Language);
        pick.FitByHand = FitByHand;
    }
}
