using System.Reflection;
using Mono.Cecil;
using Mono.Cecil.Rocks;

namespace TinRabbit.Server.Tests;

/// <summary>Which namespaces of an assembly use which others of it, by everything that its types and methods name.</summary>
internal sealed class NamespaceGraph
{
    private readonly SortedDictionary<string, SortedSet<string>> _uses = new(StringComparer.Ordinal);

    public IEnumerable<string> Namespaces => _uses.Keys;

    public static NamespaceGraph Of(Assembly assembly)
    {
        var graph = new NamespaceGraph();
        var module = AssemblyDefinition.ReadAssembly(assembly.Location, new() { InMemory = true }).MainModule;
        var own = assembly.GetName().Name!;
        foreach (var type in module.GetAllTypes().Where(t => IsOurs(NamespaceOf(t), own)))
        {
            var uses = graph._uses.TryGetValue(NamespaceOf(type), out var known) ? known : graph._uses[NamespaceOf(type)] = [];
            foreach (var named in Named(type).SelectMany(Parts))
                if (IsOurs(NamespaceOf(named), own) && named.Scope is ModuleDefinition && NamespaceOf(named) != NamespaceOf(type))
                    uses.Add(NamespaceOf(named));
        }

        return graph;
    }

    public IEnumerable<string> UsedBy(string name) => _uses.GetValueOrDefault(name, []);

    /// <summary>Every circle, as the arrows within it. (Tarjan 1972: the strongly connected components of more than one.)</summary>
    public IEnumerable<string> Circles()
    {
        var (numbers, lowest, stack, circles) = (
            new Dictionary<string, int>(),
            new Dictionary<string, int>(),
            new Stack<string>(),
            new List<string>()
        );
        foreach (var name in _uses.Keys)
            if (!numbers.ContainsKey(name))
                Visit(name);
        return circles;

        void Visit(string name)
        {
            numbers[name] = lowest[name] = numbers.Count;
            stack.Push(name);
            foreach (var other in UsedBy(name).Where(_uses.ContainsKey))
                if (!numbers.TryGetValue(other, out var number))
                {
                    Visit(other);
                    lowest[name] = Math.Min(lowest[name], lowest[other]);
                }
                else if (stack.Contains(other))
                    lowest[name] = Math.Min(lowest[name], number);
            if (lowest[name] != numbers[name])
                return;
            var circle = new HashSet<string>();
            while (circle.Add(stack.Peek()) && stack.Pop() != name) { }
            if (circle.Count > 1)
                circles.AddRange(from one in circle from other in UsedBy(one) where circle.Contains(other) select $"{one} → {other}");
        }
    }

    private static bool IsOurs(string name, string assembly) =>
        (name == assembly || name.StartsWith($"{assembly}.", StringComparison.Ordinal))
        && !name.EndsWith(".Migrations", StringComparison.Ordinal);

    // A type inside another has no namespace of its own.
    private static string NamespaceOf(TypeReference type) => type.DeclaringType is { } outer ? NamespaceOf(outer) : type.Namespace;

    private static IEnumerable<TypeReference> Named(TypeDefinition type)
    {
        IEnumerable<TypeReference?> named =
        [
            type.BaseType,
            .. type.Interfaces.Select(i => i.InterfaceType),
            .. type.Fields.Select(f => f.FieldType),
            .. type.Properties.Select(p => p.PropertyType),
            .. Attributes(type),
            .. type.Properties.SelectMany(Attributes),
            .. type.Methods.SelectMany(OfMethod),
        ];
        return named.OfType<TypeReference>();
    }

    private static IEnumerable<TypeReference> Attributes(Mono.Cecil.ICustomAttributeProvider owner) =>
        owner.CustomAttributes.SelectMany(a =>
            a.ConstructorArguments.Select(c => c.Value).OfType<TypeReference>().Prepend(a.AttributeType)
        );

    private static IEnumerable<TypeReference> OfMethod(MethodDefinition method)
    {
        IEnumerable<TypeReference> signature =
        [
            method.ReturnType,
            .. method.Parameters.Select(p => p.ParameterType),
            .. method.Parameters.SelectMany(Attributes),
            .. Attributes(method),
        ];
        return method.HasBody
            ?
            [
                .. signature,
                .. method.Body.Variables.Select(v => v.VariableType),
                .. method.Body.Instructions.SelectMany(i => OfOperand(i.Operand)),
            ]
            : signature;
    }

    private static IEnumerable<TypeReference> OfOperand(object? operand) =>
        operand switch
        {
            TypeReference type => [type],
            FieldReference field => [field.DeclaringType, field.FieldType],
            MethodReference method =>
            [
                method.DeclaringType,
                method.ReturnType,
                .. method.Parameters.Select(p => p.ParameterType),
                .. method is GenericInstanceMethod generic ? generic.GenericArguments : [],
            ],
            _ => [],
        };

    // A list of listings names both.
    private static IEnumerable<TypeReference> Parts(TypeReference type) =>
        type switch
        {
            GenericInstanceType generic => [generic.ElementType, .. generic.GenericArguments.SelectMany(Parts)],
            TypeSpecification wrapped => Parts(wrapped.ElementType),
            GenericParameter => [],
            _ => [type],
        };
}
