using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Shelves : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // The norm becomes one column; what it says is kept.
            migrationBuilder.AddColumn<string>(
                name: "Norm",
                table: "Markets",
                type: "TEXT",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.Sql("UPDATE Markets SET Norm = json_object('centre', Centre, 'lowTo', LowTo, 'moderateTo', ModerateTo, 'readings', Readings)");

            migrationBuilder.Sql("ALTER TABLE Markets DROP COLUMN Centre");

            migrationBuilder.Sql("ALTER TABLE Markets DROP COLUMN LowTo");

            migrationBuilder.Sql("ALTER TABLE Markets DROP COLUMN ModerateTo");

            migrationBuilder.Sql("ALTER TABLE Markets DROP COLUMN Readings");

            migrationBuilder.AddColumn<string>(
                name: "Language",
                table: "Picks",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "SaidBy",
                table: "Picks",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "FactsBefore",
                table: "PickChanges",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Filters",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Filters = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Filters", x => x.Id);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Filters");

            migrationBuilder.DropColumn(
                name: "Language",
                table: "Picks");

            migrationBuilder.DropColumn(
                name: "SaidBy",
                table: "Picks");

            migrationBuilder.DropColumn(
                name: "FactsBefore",
                table: "PickChanges");

            migrationBuilder.DropColumn(
                name: "Norm",
                table: "Markets");

            migrationBuilder.AddColumn<double>(
                name: "Centre",
                table: "Markets",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "LowTo",
                table: "Markets",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "ModerateTo",
                table: "Markets",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Readings",
                table: "Markets",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);
        }
    }
}
