<?php

declare(strict_types=1);

namespace App\Accounts;

/** What is written down of who comes in, who lets whom in, and what protects an account. */
enum EventKind: string
{
    case SignedIn = 'signed_in';
    case NewBrowser = 'new_browser';
    case PasswordChanged = 'password_changed';
    case AddressChanged = 'address_changed';
    case SecondOn = 'second_on';
    case SecondOff = 'second_off';
    case CodesMade = 'codes_made';
    case CodesGuessed = 'codes_guessed';
    case TokenMade = 'token_made';
    case TokenRevoked = 'token_revoked';
    case SecondRequired = 'second_required';
    case SecondNotRequired = 'second_not_required';
    case Invited = 'invited';
    case InvitationRevoked = 'invitation_revoked';
    case Joined = 'joined';
    case RoleChanged = 'role_changed';
    case Removed = 'removed';
    case Left = 'left';
    case LinkMade = 'link_made';
    case LinkRevoked = 'link_revoked';
    case LinkOpened = 'link_opened';
    case Exported = 'exported';
    case ArchiveRead = 'archive_read';
    case Restored = 'restored';
    case AccountDeleted = 'account_deleted';

    /** What somebody who did not do it has to learn of at once; null where nobody has. */
    public function notice(): ?string
    {
        return match ($this) {
            self::NewBrowser => 'Your account was signed in to from a browser it was not used from before',
            self::PasswordChanged => 'The password of your account was changed',
            self::AddressChanged => 'The e-mail address of your account was changed',
            self::SecondOff => 'The second factor of your account was turned off',
            self::CodesMade => 'New recovery codes were made for your account; earlier ones no longer work',
            self::CodesGuessed => 'Many wrong codes were entered for your account today. Whoever did it knows your password: change it',
            self::TokenMade => 'A token for scripts was made for your account',
            default => null,
        };
    }
}
