using System.Text.Json.Serialization;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A pick.</summary>
/// <param name="FitByHand">Whether the seller chose the fit; documents from before say nothing, and keep theirs.</param>
public sealed record DocumentPick(
    [Term] string Text,
    Fit Fit = Fit.Core,
    [property: JsonConverter(typeof(HomeJson))] Home Home = Home.Anywhere,
    [MaxLength(Bounds.NoteLength)] string Note = "",
    [MaxLength(Bounds.TermLength)] string Source = "",
    [MaxLength(Bounds.NoteLength)] string SaidBy = "",
    [MaxLength(20)] string Language = "",
    bool FitByHand = true
);
