<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A setting to keep, a link to make, or something only for a while. */
enum SettingKind: string
{
    use Worded;

    case Setting = 'setting';
    case Link = 'link';
    case Temporary = 'temporary';
}
