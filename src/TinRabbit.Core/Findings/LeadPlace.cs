namespace TinRabbit.Core.Findings;

/// <summary>A place where a lead belongs.</summary>
/// <param name="Place">title, address, description, heading, paragraph or alt.</param>
/// <param name="Field">The field's key; empty where the place is no field of its own.</param>
/// <param name="Label">The place as people read it.</param>
/// <param name="Held">Whether it has the lead: as a phrase in the title and in sentences, by its words elsewhere.</param>
public sealed record LeadPlace(string Place, string Field, string Label, bool Held);
