import { useDisplay } from 'vuetify'

/** Whether the page is as narrow as a phone: the width at which styles change too. */
export const usePhone = () => useDisplay({ mobileBreakpoint: 700 }).mobile
