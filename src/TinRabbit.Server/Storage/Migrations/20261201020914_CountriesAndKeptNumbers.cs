using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class CountriesAndKeptNumbers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<TimeSpan>(
                name: "ClockWasAhead",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValue: new TimeSpan(0, 0, 0, 0, 0));

            migrationBuilder.AddColumn<string>(
                name: "Countries",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValueSql: "'[]'");

            migrationBuilder.AddColumn<bool>(
                name: "KeepsSampleData",
                table: "Shops",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Language",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Kept",
                table: "Readings",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ClockWasAhead",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "Countries",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "KeepsSampleData",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "Language",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "Kept",
                table: "Readings");
        }
    }
}
