using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace TinRabbit.Server.Undo;

/// <summary>How steps are stored: as JSON, each with the name of its type. The types are found, so that a module adds one by writing it.</summary>
internal static class StepFormat
{
    /// <summary>The types of the steps.</summary>
    public static IReadOnlyList<Type> Types { get; } =
    [
        .. typeof(StepFormat)
            .Assembly.GetTypes()
            .Where(t => t.IsClass && t.IsAssignableTo(typeof(IUndoStep)))
            .OrderBy(t => t.Name, StringComparer.Ordinal),
    ];

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        AllowOutOfOrderMetadataProperties = true,
        TypeInfoResolver = new DefaultJsonTypeInfoResolver().WithAddedModifier(NameTypes),
    };

    public static string Write(IReadOnlyList<IUndoStep> steps) => JsonSerializer.Serialize(steps, Options);

    public static IReadOnlyList<IUndoStep> Read(string json) => JsonSerializer.Deserialize<List<IUndoStep>>(json, Options)!;

    private static void NameTypes(JsonTypeInfo info)
    {
        if (info.Type != typeof(IUndoStep))
            return;
        info.PolymorphismOptions = new() { UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization };
        foreach (var type in Types)
            info.PolymorphismOptions.DerivedTypes.Add(new(type, type.Name));
    }
}
