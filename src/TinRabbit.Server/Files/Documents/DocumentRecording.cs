using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Recordings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A page of a market as the seller saw it.</summary>
/// <param name="Term">What was searched for or typed; empty for a listing.</param>
/// <param name="Key">What it is found by.</param>
public sealed record DocumentRecording(
    [MaxLength(Bounds.NameLength)] string Market,
    RecordingKind Kind,
    [Term] string Term,
    [MaxLength(Bounds.ProfileText)] string Key,
    DateOnly Day,
    [MaxLength(Bounds.NameLength)] string Source,
    ReadPage Page
);
