<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Server\Elevation\LevelMark;
use Plinth\Server\Elevation\Outline;
use Plinth\Server\Elevation\OutlineCorner;
use Plinth\Server\Fit\ControlPoint;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\GridPick;
use Plinth\Server\Fit\KnownLength;
use Plinth\Server\Fit\Pick;
use Plinth\Server\Fit\Rectangle;
use Plinth\Server\Plan\BuildUp;
use Plinth\Server\Plan\Divider;
use Plinth\Server\Plan\Figure;
use Plinth\Server\Plan\ListedRoom;
use Plinth\Server\Plan\Node;
use Plinth\Server\Plan\Note;
use Plinth\Server\Plan\Opening;
use Plinth\Server\Plan\Room;
use Plinth\Server\Plan\Wall;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Plinth\Server\SettingOut\Column;
use Plinth\Server\SettingOut\GridAxis;
use Plinth\Server\Site\Boundary;
use Plinth\Server\Site\BoundaryLeg;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Source;

/** Every kind of row that a project is made of, in an order in which each refers to earlier ones only. */
enum RowType: string
{
    case Project = 'project';
    case Storey = 'storey';
    case Side = 'side';
    case Source = 'source';
    case Page = 'page';
    case Drawing = 'drawing';
    case Fit = 'fit';
    case Pick = 'pick';
    case KnownLength = 'knownLength';
    case GridPick = 'gridPick';
    case Rectangle = 'rectangle';
    case ControlPoint = 'controlPoint';
    case LevelMark = 'levelMark';
    case GridAxis = 'gridAxis';
    case Column = 'column';
    case Boundary = 'boundary';
    case Leg = 'leg';
    case Outline = 'outline';
    case OutlineCorner = 'outlineCorner';
    case BuildUp = 'buildUp';
    case Node = 'node';
    case Wall = 'wall';
    case Opening = 'opening';
    case Room = 'room';
    case Divider = 'divider';
    case Figure = 'figure';
    case Note = 'note';
    case ListedRoom = 'listedRoom';

    /** @return class-string<ProjectRow> */
    public function class(): string
    {
        return match ($this) {
            self::Project => Project::class,
            self::Storey => Storey::class,
            self::Side => Side::class,
            self::Source => Source::class,
            self::Page => Page::class,
            self::Drawing => Drawing::class,
            self::Fit => DrawingFit::class,
            self::Pick => Pick::class,
            self::KnownLength => KnownLength::class,
            self::GridPick => GridPick::class,
            self::Rectangle => Rectangle::class,
            self::ControlPoint => ControlPoint::class,
            self::LevelMark => LevelMark::class,
            self::GridAxis => GridAxis::class,
            self::Column => Column::class,
            self::Boundary => Boundary::class,
            self::Leg => BoundaryLeg::class,
            self::Outline => Outline::class,
            self::OutlineCorner => OutlineCorner::class,
            self::BuildUp => BuildUp::class,
            self::Node => Node::class,
            self::Wall => Wall::class,
            self::Opening => Opening::class,
            self::Room => Room::class,
            self::Divider => Divider::class,
            self::Figure => Figure::class,
            self::Note => Note::class,
            self::ListedRoom => ListedRoom::class,
        };
    }

    /** Rows that follow from others, or that only an import makes, are not written by clients. */
    public function isWrittenByClients(): bool
    {
        return !\in_array($this, [self::Source, self::Page, self::Fit], true);
    }

    /** Rows that clients may remove: together with all that stands on them where it would stand on nothing. */
    public function isRemovedByClients(): bool
    {
        return !\in_array($this, [self::Project, self::Page, self::Fit], true);
    }

    /** @return list<array{RowType, string}> which rows point here, and by which field */
    public function referrers(): array
    {
        return match ($this) {
            self::Storey => [[self::Storey, 'alternativeOf'], [self::Outline, 'storey'], [self::Drawing, 'storey'], [self::Node, 'storey'], [self::Room, 'storey'], [self::Column, 'storey'], [self::Boundary, 'storey'], [self::Divider, 'storey'], [self::Note, 'storey'], [self::ListedRoom, 'storey']],
            self::Side => [[self::Drawing, 'side'], [self::Outline, 'side']],
            self::Source => [[self::Page, 'source']],
            self::Page => [[self::Drawing, 'page'], [self::Page, 'replaces']],
            self::Drawing => [[self::Pick, 'drawing'], [self::KnownLength, 'drawing'], [self::GridPick, 'drawing'], [self::Rectangle, 'drawing'], [self::ControlPoint, 'drawing'], [self::LevelMark, 'drawing'], [self::OutlineCorner, 'drawing'], [self::Fit, 'id'], [self::Node, 'drawing'], [self::Room, 'drawing'], [self::Divider, 'drawing'], [self::Figure, 'drawing']],
            self::BuildUp => [[self::Wall, 'buildUp']],
            self::Pick => [
                [self::KnownLength, 'a'], [self::KnownLength, 'b'], [self::KnownLength, 'c'], [self::GridPick, 'a'], [self::GridPick, 'b'],
                [self::Rectangle, 'a'], [self::Rectangle, 'b'], [self::Rectangle, 'c'], [self::Rectangle, 'd'], [self::ControlPoint, 'pick'], [self::LevelMark, 'pick'],
            ],
            self::Node => [[self::Wall, 'fromNode'], [self::Wall, 'toNode']],
            self::Wall => [[self::Opening, 'wall'], [self::Figure, 'a'], [self::Figure, 'b']],
            self::Boundary => [[self::Leg, 'boundary']],
            self::Outline => [[self::OutlineCorner, 'outline']],
            default => [],
        };
    }
}
