using System.Collections;
using System.Collections.Concurrent;
using System.Text.Json.Serialization.Metadata;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace TinRabbit.Server.Requests;

/// <summary>
/// Checks every request before its endpoint runs: what is needed is there, no list has a null, and every text and list is within its bound.
/// The bounds are attributes on the request's record; what has none is held to <see cref="Bounds.TextLength"/> and <see cref="Bounds.List"/>.
/// Which members a record has, their names and how they are read come from the serializer's contract, once for each type.
/// The OpenAPI document tells the same bounds. Whole documents (<see cref="JsonElement"/>) are checked by <see cref="PlatformJson"/>.
/// </summary>
internal static class RequestValidation
{
    private static readonly ConcurrentDictionary<Type, Member[]> Records = new();

    /// <summary>Marks what can be neither null nor left out.</summary>
    public static void MarkRequired(JsonTypeInfo type)
    {
        foreach (var property in type.Properties)
            if (
                property.AssociatedParameter is { HasDefaultValue: false, IsNullable: false } parameter
                && parameter.ParameterType != typeof(JsonElement)
            )
                property.IsRequired = true;
    }

    /// <summary>Makes the check of one endpoint: which of its arguments are records, texts and markets is found once.</summary>
    public static EndpointFilterDelegate Filter(EndpointFilterFactoryContext context, EndpointFilterDelegate next)
    {
        var parameters = context.MethodInfo.GetParameters();
        var texts = parameters.Where(p => p.ParameterType == typeof(string)).Select(p => (p.Position, Name: p.Name!)).ToArray();
        var records = parameters.Where(p => IsOurs(p.ParameterType)).Select(p => p.Position).ToArray();
        foreach (var record in records)
            MembersOf(parameters[record].ParameterType);
        if (texts.Length + records.Length == 0)
            return next;
        return async invocation =>
        {
            var problems = new List<Problem>();
            foreach (var (position, name) in texts)
                if (invocation.Arguments[position] is string text)
                {
                    if (name == "marketId" && !Knows(invocation, text))
                        return TypedResults.Problem(
                            $"There is no market \"{Short(text)}\".",
                            statusCode: StatusCodes.Status404NotFound,
                            title: "Not found."
                        );
                    if (text.Length > Bounds.TermLength)
                        problems.Add(new(name, TooLong(text.Length, Bounds.TermLength)));
                }

            foreach (var position in records)
                if (invocation.Arguments[position] is { } record)
                    Check(record, "", problems, id => Knows(invocation, id));
            return problems.Count == 0 ? await next(invocation) : throw new InvalidInputException(problems);
        };
    }

    /// <summary>Holds a document that was read from a file to the same bounds.</summary>
    /// <exception cref="InvalidInputException">A text or a list of it is beyond its bound.</exception>
    public static void ThrowIfOutOfBounds(object document)
    {
        var problems = new List<Problem>();
        Check(document, "", problems, _ => true);
        if (problems.Count > 0)
            throw new InvalidInputException([.. problems.Take(20)]);
    }

    /// <summary>Tells the bounds of a request's members in the OpenAPI document.</summary>
    public static Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken stop)
    {
        if (!Records.TryGetValue(context.JsonTypeInfo.Type, out var members) || schema.Properties is not { } properties)
            return Task.CompletedTask;
        foreach (var member in members)
            if (properties.TryGetValue(member.Name, out var described) && described is OpenApiSchema at)
            {
                if (member.IsText)
                    at.MaxLength = member.Most;
                else if (member.IsList)
                {
                    at.MaxItems = member.Most;
                    if (member.ItemsAreTexts && at.Items is OpenApiSchema items)
                        items.MaxLength = member.MostOfItem;
                }
            }

        return Task.CompletedTask;
    }

    private static bool Knows(EndpointFilterInvocationContext invocation, string marketId) =>
        invocation.HttpContext.RequestServices.GetRequiredService<IMarket>().Places.Any(p => p.Id == marketId);

    private static void Check(object record, string path, List<Problem> problems, Func<string, bool> knowsMarket)
    {
        foreach (var member in MembersOf(record.GetType()))
        {
            var at = path + member.Name;
            switch (member.Get(record))
            {
                case null:
                    break;
                case string text:
                    CheckText(text, member.Most, member.IsTerm, at, problems);
                    if (member.Name == "marketId" && problems.Count == 0 && !knowsMarket(text))
                        problems.Add(new(at, $"There is no market \"{Short(text)}\"."));
                    break;
                case IList list:
                    if (list.Count > member.Most)
                        problems.Add(new(at, $"This list has {list.Count:#,0} items; the most is {member.Most:#,0}."));
                    else
                        for (var i = 0; i < list.Count; i++)
                            CheckItem(list[i], member, $"{at}[{i}]", problems, knowsMarket);
                    break;
                case var inner when IsOurs(inner.GetType()):
                    Check(inner, at + ".", problems, knowsMarket);
                    break;
            }
        }
    }

    private static void CheckItem(object? item, Member member, string at, List<Problem> problems, Func<string, bool> knowsMarket)
    {
        if (item is null && !member.ItemsMayBeNull)
            problems.Add(new(at, "This is null: give a value, or leave it out."));
        else if (item is string text)
            CheckText(text, member.MostOfItem, member.IsTerm, at, problems);
        else if (item is not null && IsOurs(item.GetType()))
            Check(item, at + ".", problems, knowsMarket);
    }

    private static void CheckText(string text, int most, bool isTerm, string at, List<Problem> problems)
    {
        if (text.Length > most)
            problems.Add(new(at, TooLong(text.Length, most)));
        else if (isTerm && text.Length > Bounds.TermWords && Tokens.Of(text).Count > Bounds.TermWords)
            problems.Add(new(at, $"A search term has at most {Bounds.TermWords} words."));
        else if (LoneSurrogate(text) is >= 0 and var place)
            problems.Add(
                new(at, $"Character {place + 1} is half of a character (a lone surrogate). Write the whole character, or remove it.")
            );
    }

    /// <summary>Where half of a surrogate pair is without the other half; −1 where there is none.</summary>
    public static int LoneSurrogate(string text)
    {
        for (var i = text.AsSpan().IndexOfAnyInRange('\ud800', '\udfff'); i >= 0 && i < text.Length; i++)
            if (char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]))
                i++;
            else if (char.IsSurrogate(text[i]))
                return i;
        return -1;
    }

    private static string TooLong(int length, int most) => $"This text has {length:#,0} characters; the most is {most:#,0}.";

    private static string Short(string text) => text.Length <= 60 ? text : text[..60] + "…";

    private static bool IsOurs(Type type) =>
        type is { IsClass: true, IsArray: false }
        && type.Assembly == typeof(RequestValidation).Assembly
        && type.GetMethod("<Clone>$") is not null;

    private static Member[] MembersOf(Type record) =>
        Records.GetOrAdd(
            record,
            type =>
                [
                    .. JsonSerializerOptions
                        .Web.GetTypeInfo(type)
                        .Properties.Where(p => p.Get is not null && (p.Set is not null || p.AssociatedParameter is not null))
                        .Select(Member.Of)
                        .Where(m => m.IsText || m.IsList || m.IsRecord),
                ]
        );

    private sealed record Member(
        string Name,
        Func<object, object?> Get,
        bool IsText,
        bool IsList,
        bool IsRecord,
        bool IsTerm,
        bool ItemsAreTexts,
        bool ItemsMayBeNull,
        int Most,
        int MostOfItem
    )
    {
        public static Member Of(JsonPropertyInfo property)
        {
            T? Attribute<T>()
                where T : Attribute =>
                new[] { property.AttributeProvider, property.AssociatedParameter?.AttributeProvider }
                    .SelectMany(p => p?.GetCustomAttributes(typeof(T), true) ?? [])
                    .OfType<T>()
                    .FirstOrDefault();
            var (type, isTerm) = (property.PropertyType, Attribute<TermAttribute>() is not null);
            var (isText, isList) = (type == typeof(string), type != typeof(string) && type.IsAssignableTo(typeof(IEnumerable)));
            var item = type.GenericTypeArguments.FirstOrDefault();
            return new(
                property.Name,
                property.Get!,
                isText,
                isList,
                IsOurs(type),
                isTerm,
                item == typeof(string),
                item is not null && Nullable.GetUnderlyingType(item) is not null,
                Attribute<MaxLengthAttribute>()?.Length
                    ?? (
                        isList ? Bounds.List
                        : isTerm ? Bounds.TermLength
                        : Bounds.TextLength
                    ),
                Attribute<EachMaxLengthAttribute>()?.Length ?? (isTerm ? Bounds.TermLength : Bounds.TextLength)
            );
        }
    }
}
